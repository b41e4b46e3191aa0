'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Divider from '@mui/material/Divider'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import FileDownloadIcon from '@mui/icons-material/FileDownloadOutlined'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { writePresetFile } from '@/core/interchange/presetFile'
import type { OutputChoice } from '@/core/model/outputChoice'
import { allRenderPresets, deleteRenderPreset, keepRenderPreset } from '@/store/renderPresets'
import { offerDownload } from '@/ui/offerDownload'
import { wording } from './wording'

/** Render settings kept under names: to choose, keep and delete. */
export function PresetBar({ choice, onChoose }: { choice: OutputChoice; onChoose: (output: OutputChoice) => void }) {
  const presets = useLiveQuery(allRenderPresets, [])
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [name, setName] = useState('')
  const same = presets?.find((p) => JSON.stringify(p.output) === JSON.stringify(choice))
  const keep = async () => {
    await keepRenderPreset(name.trim(), choice)
    // The menu stays, with the new one marked in it: Escape then closes the menu and not what lies under it.
    setName('')
  }
  return (
    <>
      <Button aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {same ? wording.preset(same.name) : wording.presets}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {presets?.map((preset) => (
          <MenuItem
            key={preset.id}
            selected={preset === same}
            onClick={() => {
              onChoose(preset.output)
              setAnchor(null)
            }}
            sx={{ gap: 1 }}
          >
            <Box sx={{ flex: 1 }}>{preset.name}</Box>
            <IconButton
              size="small"
              aria-label={wording.savePresetAsAFile(preset.name)}
              onClick={(e) => {
                e.stopPropagation()
                offerDownload(
                  new Blob([writePresetFile(preset.name, preset.output)], { type: 'application/json' }),
                  `${preset.name}.preset.json`,
                )
              }}
            >
              <FileDownloadIcon fontSize="small" />
            </IconButton>
            <IconButton
              size="small"
              aria-label={wording.deletePreset(preset.name)}
              onClick={(e) => {
                e.stopPropagation()
                void deleteRenderPreset(preset.id)
              }}
            >
              <DeleteOutlineIcon fontSize="small" />
            </IconButton>
          </MenuItem>
        ))}
        {presets && presets.length > 0 && <Divider />}
        <Box
          component="form"
          sx={{ display: 'flex', gap: 2, px: 4, py: 2 }}
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          onSubmit={(e) => (e.preventDefault(), void (name.trim() && keep()))}
        >
          <TextField
            size="small"
            label={wording.keepTheseSettingsAs}
            value={name}
            onChange={(e) => setName(e.target.value)}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <Button type="submit" disabled={name.trim() === ''}>
            {wording.keep}
          </Button>
        </Box>
      </Menu>
    </>
  )
}
