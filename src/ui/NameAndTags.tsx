import TextField from '@mui/material/TextField'

interface NameAndTagsProps {
  name: string
  isNameRight: boolean
  onName: (name: string) => void
  /** With commas between. */
  tags: string
  onTags: (tags: string) => void
}

/** What something is kept under: a name, picked up as a whole, and tags. */
export function NameAndTags({ name, isNameRight, onName, tags, onTags }: NameAndTagsProps) {
  return (
    <>
      <TextField
        size="small"
        autoFocus
        label="Name"
        value={name}
        error={!isNameRight}
        onChange={(e) => onName(e.target.value)}
        onFocus={(e) => e.target.select()}
      />
      <TextField
        size="small"
        label="Tags, with commas between"
        placeholder="soaring, evening"
        value={tags}
        onChange={(e) => onTags(e.target.value)}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </>
  )
}
