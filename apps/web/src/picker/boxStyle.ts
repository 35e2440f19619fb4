// The box of an input that stands by itself, outside the cells of a sheet.

export const boxStyle = {
  width: '100%',
  height: '100%',
  padding: '0 10px',
  font: 'inherit',
  color: 'inherit',
  background: 'var(--chakra-colors-card)',
  border: '1px solid var(--chakra-colors-slate-border)',
  borderRadius: '7px',
  outlineColor: 'var(--chakra-colors-damson-solid)',
} as const;
