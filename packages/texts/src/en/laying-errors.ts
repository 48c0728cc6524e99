/** Refusals of whoever lays out a shop: its bench, its copies, what it takes in from depots and makers. */
export const layingErrors = {
  'error.disk.full': 'The disk of {folder} is full: {mib} MiB are free there.',
  'error.disk.full.kept': 'This was not kept; everything that was acknowledged before it is.',
  'error.disk.full.remedy':
    'Make room: take packages off the shelf, remove old logs in the data folder, or whatever else lies on that disk. Then do it again; nothing has to be started.',
  'error.copies.folder': '“{folder}” does not say where a folder is.',
  'error.copies.folder.kept': 'Nothing was changed; what you typed is still here.',
  'error.copies.folder.remedy':
    'Write its whole path on the machine that runs the shop, from / on, best on another disk.',
  'error.catalogue.late': 'This catalogue took longer to read than any catalogue does.',
  'error.catalogue.late.kept': 'Nothing of it was taken in.',
  'error.catalogue.late.remedy': 'Ask its depot for it in parts.',
  'error.catalogue.other-key':
    'This catalogue of {from} is signed by the key {key}, and those before by {bound}.',
  'error.catalogue.other-key.kept': 'Nothing of it was taken in.',
  'error.catalogue.other-key.remedy':
    'Ask the depot. Where it has a new key, whoever keeps this machine takes {bound}.pem out of the trust folder, and it is sent again.',
  'error.family.late': 'This file took longer to read than any family does.',
  'error.family.late.kept': 'Nothing was changed.',
  'error.family.late.remedy': 'Write it shorter, in parts that are less deep.',
  'error.port.there': 'This bench has a port {port} already.',
  'error.port.there.kept': 'Nothing was changed; what you typed is still here.',
  'error.port.there.remedy': 'Give the new one another name, or strike the old one out first.',
  'error.port.address':
    '“{address}” is no address of this machine. One is written tcp:HOST:PORT, as in tcp:127.0.0.1:4100.',
  'error.port.address.kept': 'Nothing was changed; what you typed is still here.',
  'error.port.address.remedy':
    'For another machine, or for a command whose pipes are the device’s stream, somebody at the bench’s own computer types: npx --no -- plain-slate port add NAME tcp:HOST:PORT, or port add NAME -- COMMAND ARGUMENT …',
  'error.port.held': 'A run holds {port}.',
  'error.port.held.kept': 'The port stays as it is, and the run goes on.',
  'error.port.held.remedy': 'Let the run end, or put it away, and strike the port out then.',
  'error.port.filed': 'A file on the computer of its bench names {port}, not the house.',
  'error.port.filed.kept': 'Nothing was changed.',
  'error.port.filed.remedy':
    'Where “port add” named it there, type on that computer: npx --no -- plain-slate port strike {port}. Else it stands in the bench’s own file, bench.json of its data folder.',
  'error.port.which-bench':
    '{n, plural, =0 {No bench’s agent lives now} other {# benches have agents}}: whose port this is cannot be told.',
  'error.port.which-bench.kept': 'Nothing was changed; what you typed is still here.',
  'error.port.which-bench.remedy':
    '{n, plural, =0 {Wait until the agent is there again (the start command begins it)} other {Say whose it is}}, and send it again.',
  'error.cable.there': 'There is a cable {cable} already.',
  'error.cable.there.kept': 'Nothing was changed; what you typed is still here.',
  'error.cable.there.remedy': 'Write another name on the label of the new one.',
  'error.cable.struck': 'A cable {cable} was struck out, and what it went through is in the book.',
  'error.cable.struck.kept': 'Nothing was changed; what you typed is still here.',
  'error.cable.struck.remedy': 'Write another name on the label of the new one.',
  'error.cable.held': 'A run goes over cable {cable}.',
  'error.cable.held.kept': 'Nothing was changed, and the run goes on.',
  'error.cable.held.remedy': 'Let the run end, or put it away, and strike the cable out then.',
} as const
