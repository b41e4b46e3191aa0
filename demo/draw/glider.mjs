/** A sailplane seen from the side and slightly behind. `length` is the wingspan in px, `bank` and `pitch` radians. */
export function drawGlider(ctx, { x, y, length, bank = 0, pitch = 0, accent = '#c2402c', body = '#f6f2e8' }) {
  ctx.save()
  ctx.translate(x, y)
  ctx.rotate(pitch)
  const u = length / 100
  const dip = Math.sin(bank) * 16 * u
  wing(ctx, u, -50, -6 * u + dip, accent, body)
  ctx.fillStyle = body
  ctx.strokeStyle = '#3c4a46'
  ctx.lineWidth = Math.max(1, 0.5 * u)
  ctx.beginPath()
  ctx.moveTo(24 * u, 0)
  ctx.quadraticCurveTo(18 * u, -6 * u, 6 * u, -5 * u)
  ctx.lineTo(-30 * u, -1.5 * u)
  ctx.lineTo(-30 * u, 1 * u)
  ctx.quadraticCurveTo(4 * u, 6 * u, 24 * u, 0)
  ctx.closePath()
  ctx.fill()
  ctx.stroke()
  ctx.fillStyle = '#33566b'
  ctx.beginPath()
  ctx.ellipse(13 * u, -3 * u, 7 * u, 2.8 * u, 0.12, 0, Math.PI * 2)
  ctx.fill()
  ctx.fillStyle = accent
  ctx.beginPath()
  ctx.moveTo(-30 * u, 0)
  ctx.lineTo(-37 * u, -13 * u)
  ctx.lineTo(-33 * u, -13.5 * u)
  ctx.lineTo(-24 * u, -1 * u)
  ctx.fill()
  wing(ctx, u, 50, 4 * u - dip, accent, body)
  ctx.restore()
}

function wing(ctx, u, tip, rise, accent, body) {
  const side = Math.sign(tip)
  ctx.fillStyle = side > 0 ? body : '#ddd8ca'
  ctx.strokeStyle = accent
  ctx.lineWidth = Math.max(1, 0.8 * u)
  ctx.beginPath()
  ctx.moveTo(6 * u, -1 * u)
  ctx.lineTo(tip * u * 0.98, rise - 3 * u)
  ctx.lineTo(tip * u, rise - 0.5 * u)
  ctx.lineTo(-3 * u, 2 * u)
  ctx.closePath()
  ctx.fill()
  ctx.stroke()
}
