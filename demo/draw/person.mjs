// A drawn person before a camera: breathes, blinks, talks, cheers and leans.

/**
 * @param {object} box the camera picture in px; everything is clipped to it
 * @param {object} who skin, hair, shirt, wall colours and headset flag
 * @param {{ t: number, talk: number, joy?: number, lean?: number }} act seconds, mouth 0..1, cheer 0..1, sideways
 * lean in box widths
 */
export function drawPerson(ctx, box, who, { t, talk, joy = 0, lean = 0 }) {
  ctx.save()
  ctx.beginPath()
  ctx.rect(box.x, box.y, box.width, box.height)
  ctx.clip()
  drawRoom(ctx, box, who)
  const s = box.height / 270
  const sway = Math.sin(t * 0.9 + who.phase) * 6 * s + Math.sin(t * 2.3) * 2 * s
  const bob = Math.sin(t * 1.7 + who.phase) * 2 * s - joy * Math.abs(Math.sin(t * 9)) * 16 * s
  ctx.translate(box.x + box.width * (0.5 + lean) + sway, box.y + box.height * 0.53 + bob)
  ctx.rotate(lean * 0.5 + Math.sin(t * 1.1) * 0.02)
  ctx.scale(s, s)
  drawBody(ctx, who, t, joy)
  drawHead(ctx, who, t, talk, joy)
  ctx.restore()
}

function drawRoom(ctx, { x, y, width, height }, who) {
  const wall = ctx.createLinearGradient(x, y, x + width, y + height)
  wall.addColorStop(0, who.wall[0])
  wall.addColorStop(1, who.wall[1])
  ctx.fillStyle = wall
  ctx.fillRect(x, y, width, height)
  ctx.fillStyle = who.shelf
  for (let i = 0; i < 5; i++)
    ctx.fillRect(
      x + width * (0.05 + 0.034 * i),
      y + height * (0.2 - 0.02 * (i % 3)),
      width * 0.024,
      height * (0.16 + 0.02 * (i % 3)),
    )
  ctx.fillRect(x + width * 0.03, y + height * 0.36, width * 0.2, height * 0.018)
  ctx.globalAlpha = 0.5
  ctx.fillRect(x + width * 0.76, y + height * 0.12, width * 0.18, height * 0.3)
  ctx.globalAlpha = 1
}

function drawBody(ctx, who, t, joy) {
  ctx.fillStyle = who.shirt
  ctx.beginPath()
  ctx.moveTo(-104, 170)
  ctx.quadraticCurveTo(-100, 78, -34, 68)
  ctx.lineTo(34, 68)
  ctx.quadraticCurveTo(100, 78, 104, 170)
  ctx.fill()
  if (joy > 0.05) {
    ctx.strokeStyle = who.shirt
    ctx.lineWidth = 30
    ctx.lineCap = 'round'
    const up = 40 + 50 * joy + 8 * Math.sin(t * 11)
    for (const side of [-1, 1]) {
      ctx.beginPath()
      ctx.moveTo(side * 88, 112)
      ctx.lineTo(side * 112, 90 - up)
      ctx.stroke()
      ctx.fillStyle = who.skin
      ctx.beginPath()
      ctx.arc(side * 113, 76 - up, 16, 0, Math.PI * 2)
      ctx.fill()
    }
  }
  ctx.fillStyle = who.shade
  ctx.fillRect(-19, 44, 38, 34)
}

function drawHead(ctx, who, t, talk, joy) {
  ctx.fillStyle = who.hair
  ctx.beginPath()
  ctx.ellipse(0, -12, 60, 70, 0, 0, Math.PI * 2)
  ctx.fill()
  if (who.longHair) ctx.fillRect(-60, -12, 120, 74)
  ctx.fillStyle = who.skin
  ctx.beginPath()
  ctx.ellipse(0, 2, 50, 60, 0, 0, Math.PI * 2)
  ctx.fill()
  ctx.fillStyle = who.hair
  ctx.beginPath()
  ctx.moveTo(-54, -14)
  ctx.quadraticCurveTo(-40, -74, 8, -68)
  ctx.quadraticCurveTo(56, -66, 54, -10)
  ctx.quadraticCurveTo(28, -44, -12, -38)
  ctx.quadraticCurveTo(-42, -34, -54, -14)
  ctx.fill()
  const blink = t % 3.4 > 3.26 ? 0.12 : 1
  for (const side of [-1, 1]) {
    ctx.fillStyle = '#f8f5ee'
    ellipse(ctx, side * 19, -4, 9, 6.5 * blink)
    ctx.fillStyle = '#2b2523'
    ellipse(ctx, side * 19 + 2 * Math.sin(t * 0.8), -4, 4.6, 5.2 * blink)
    ctx.strokeStyle = who.hair
    ctx.lineWidth = 4
    ctx.beginPath()
    ctx.moveTo(side * 10, -18 - joy * 8)
    ctx.quadraticCurveTo(side * 19, -23 - joy * 9, side * 29, -17 - joy * 6)
    ctx.stroke()
  }
  ctx.strokeStyle = who.shade
  ctx.lineWidth = 3
  ctx.beginPath()
  ctx.moveTo(-1, 2)
  ctx.quadraticCurveTo(6, 16, -3, 17)
  ctx.stroke()
  ctx.fillStyle = '#7c2f2a'
  ellipse(ctx, 0, 34, 14 + joy * 6, 2.6 + talk * 11 + joy * 5)
  if (talk + joy > 0.3) {
    ctx.fillStyle = '#f4eee4'
    ctx.fillRect(-9, 27 - talk * 5, 18, 4)
  }
  if (who.glasses) drawGlasses(ctx)
  if (who.headset) drawHeadset(ctx)
}

function ellipse(ctx, x, y, rx, ry) {
  ctx.beginPath()
  ctx.ellipse(x, y, rx, Math.max(0.8, ry), 0, 0, Math.PI * 2)
  ctx.fill()
}

function drawGlasses(ctx) {
  ctx.strokeStyle = '#2c3336'
  ctx.lineWidth = 3
  for (const side of [-1, 1]) {
    ctx.beginPath()
    ctx.ellipse(side * 19, -4, 14, 12, 0, 0, Math.PI * 2)
    ctx.stroke()
  }
  ctx.beginPath()
  ctx.moveTo(-5, -5)
  ctx.lineTo(5, -5)
  ctx.stroke()
}

function drawHeadset(ctx) {
  ctx.strokeStyle = '#23292b'
  ctx.lineWidth = 9
  ctx.beginPath()
  ctx.arc(0, -10, 64, Math.PI * 1.04, Math.PI * 1.96)
  ctx.stroke()
  ctx.fillStyle = '#23292b'
  for (const side of [-1, 1]) ellipse(ctx, side * 59, 4, 12, 22)
  ctx.lineWidth = 4
  ctx.beginPath()
  ctx.moveTo(-58, 20)
  ctx.quadraticCurveTo(-52, 48, -24, 44)
  ctx.stroke()
  ellipse(ctx, -20, 43, 7, 5)
}

export const people = {
  wren: {
    phase: 0,
    skin: '#d9a27c',
    shade: '#b9805c',
    hair: '#40281f',
    shirt: '#2f6a45',
    wall: ['#4a565c', '#2a3237'],
    shelf: '#6f7d7c',
    headset: true,
  },
  odo: {
    phase: 2,
    skin: '#8d5c3f',
    shade: '#6f4530',
    hair: '#1d1817',
    shirt: '#b8862f',
    wall: ['#c9c2b0', '#9c9a8a'],
    shelf: '#7d6a50',
    glasses: true,
  },
  wrenAtHome: {
    phase: 1,
    skin: '#d9a27c',
    shade: '#b9805c',
    hair: '#40281f',
    shirt: '#4a6472',
    wall: ['#b9c6c0', '#7f948f'],
    shelf: '#557063',
  },
  ines: {
    phase: 3,
    skin: '#edc6a4',
    shade: '#cfa17d',
    hair: '#8b4a2a',
    shirt: '#8c3b32',
    wall: ['#d7d2c4', '#a9a795'],
    shelf: '#8b8f7b',
    longHair: true,
    glasses: true,
  },
}
