/** Commands: of the find box, and of the shell tool. */
export const command = {
  'command.go': 'Go to {place}',
  'command.theme': 'Light or dark: {theme}',
  'cli.usage':
    'npx --no plain-slate book verify [FILE] [--json]\n\nWithout a file the running server is asked.',
  'cli.verify.holds':
    '{n, plural, =0 {an empty book} one {# entry} other {# entries}}: the chain holds, head {head}',
  'cli.verify.unreadable':
    'line {line} (entry {seq}) is not an entry of a book; the {before} before it hold',
  'cli.verify.gap':
    'line {line} is entry {seq}, and entry {expected} was to come; the {before} before it hold',
  'cli.verify.hash':
    'line {line}, entry {seq}: its hash does not follow from what it says and from the entry before; the {before} before it hold',
  'cli.no-server':
    'No Plain Slate runs from the data folder {data}. Start it with npm start, or name an export.',
  'cli.no-file': 'The file {file} cannot be read.',
  'cli.refused': 'The server refused: {sentence}',
} as const
