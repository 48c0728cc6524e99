/** Commands: of the find box, and of the shell tool. */
export const command = {
  'command.go': 'Go to {place}',
  'command.theme': 'Light or dark: {theme}',
  'cli.usage':
    'npx --no -- plain-slate COMMAND [--as NAME] [--json] [--data FOLDER]\n\n  shelve FILE … [--sha256 DIGEST --from catalogue|maker|person --where PLACE]\n                                       send archives to the shelf and have them read\n  catalogue FILE                       take in a depot’s signed catalogue\n  prove FILE … [--sha256 DIGEST]       prove a package here, without a server\n  fit OF                               hold the shelf against one device\n  routes OF                            its roads, the best first, and what each costs; else what would open one\n  why --package ID OF                  every rule’s finding on one package\n  plan --package ID OF                 ID of a package, or the name of a route\n  rehearse --package ID OF [--cuts]    where its plan ends; with --cuts what a cut in each step would leave\n  run --slip NUMBER --serial END       start the plan of a slip; without one taken, --package ID takes it\n  run --open --port P2 --package ID --serial END [WANTED]\n                                       opens a slip for the device there first\n  read --slip NUMBER --port P5 [--deep]\n                                       read the device there for its slip; deep: in the mode that shows more\n  read --open --port P5 [--deep] [WANTED]\n                                       opens a slip for the device there first\n  say --slip NUMBER TOPIC=ANSWER …     say lines of a slip: survive.tickets=must ready.cable=done\n  say --slip NUMBER --list [STAGE]     what may be said of it, with what, and what stands\n  permit --slip NUMBER FILE            put down its maker’s permit, by the file that its maker sent\n  port list | add NAME tcp:HOST:PORT | add NAME -- COMMAND ARGUMENT … | strike NAME\n                                       the ports of this computer’s bench\n  cable add NAME [--port P2] [--note TEXT] | hang NAME [--port P2] | strike NAME\n  hands list | ACT SERIAL [WORD]       what hands do with simulated devices: plug 7F31 P2, charge 7F31 40, break-key, tear, like, hub P2 on\n  family check FILE …                  what is wrong with a family’s file, by its lines\n  backup FOLDER                        copy the shop that runs, and read the copy back\n  restore FOLDER --data DIR            make a shop of a copy, in a new folder\n  book verify [FILE | --replay N]      without a file the running server is asked; --replay runs the newest N again\n\nOF: --slip NUMBER, or --port P2 or --readings FILE with [WANTED].\nWANTED: --intent INTENT (update when left out), --data-may-go when the customer’s data need not survive.\n--as NAME: who acts. The PIN is asked for, or stands in PLAIN_SLATE_PIN; PLAIN_SLATE_TOKEN holds a token made on House instead. What only reads needs neither.',
  'cli.bench.none': 'No port and no cable yet. Name the first: port add NAME tcp:HOST:PORT',
  'cli.port': '{name}  {way}  {state}  {device}',
  'cli.cable': 'cable {name} at {port}: {runs, plural, one {# run} other {# runs}}, {losses} lost',
  'cli.port.address': '“{address}” is no address. One is written tcp:HOST:PORT.',
  'cli.port.added': '{name} is named; its agent holds it in a moment.',
  'cli.port.struck': '{name} is struck out.',
  'cli.port.file': '{file} cannot be read, and was left as it is. Put it right, or take it away.',
  'cli.readings': 'The file {file} holds no readings: {what}',
  'cli.catalogue':
    '{from}, catalogue {number}: {packages, plural, one {one package} other {# packages}} known by it.',
  'cli.rehearsed': 'Rehearsed to its end: it starts {build}, as promised.',
  'cli.needs': 'This command needs --{name}.',
  'cli.why.none': 'No package {asked} was judged, or several bear that id: name it by its key.',
  'cli.no-intent': 'There is no intent {asked}. There are {intents}.',
  'cli.no-manifest': 'None of these archives holds a manifest.json.',
  'cli.run.name':
    '{title} would be written to the device …{end} at {port}. Lost: {lost}. To start it, name the device: --serial {end}',
  'cli.run.needs': 'run needs --slip NUMBER, or --open with --port and --package.',
  'cli.run.opened': 'Slip {number} was opened for it.',
  'cli.run.not-ready':
    'Slip {number} is not ready. In the way: {what}. Say what a person says with: say --slip {number} TOPIC=ANSWER …',
  'cli.say.line': '{topic}: {answer}',
  'cli.say.needs': 'Each line is TOPIC=ANSWER; “{line}” is none.',
  'cli.say.one': '{topic}  {what}  [{answers}]{stands}',
  'cli.say.stands': '  stands: {answer}',
  'cli.say.text': 'a short text',
  'cli.say.day': 'a day, as 2026-12-24',
  'cli.say.listed': 'the name of a route: routes --slip {number}',
  'cli.say.none': 'Nothing is said at {stage}. There are {stages}.',
  'cli.read': '{device} is read for slip {number}: {build}',
  'cli.read.none':
    'No open slip is for the device at {port} ({device}). Name one with --slip, or open one with --open.',
  'cli.run.claimed':
    'The device at {port} is the one of slip {number}: go on there with --slip {number}.',
  'cli.hands.acts': 'Hands do one of these, with the end of a serial number: {acts}.',
  'cli.hands.word':
    '“{word}” is nothing that {act} takes. What each device takes stands in hands list.',
  'cli.hands.which': '“{end}” is the end of not just one serial number. There are {serials}.',
  'cli.hands.done': 'Done.',
  'cli.hands.beside': 'beside',
  'cli.as.ask': 'PIN of {name}: ',
  'cli.as.pin': 'The PIN of {name} is asked for at a keyboard, or stands in {variable}.',
  'cli.as.nobody': 'Nobody here is called {as}. There are {names}.',
  'cli.as.several': '{as} may be {names}: give the whole name.',
  'cli.as.token': 'The token in {variable} holds no more: make another on House.',
  'cli.as.other': 'The token in {variable} is {name}’s, not {as}’s.',
  'cli.entry.refused': '  {name} at byte {offset}: {why}',
  'cli.run.enter': '(Enter when it is done)',
  'cli.replay.equal':
    '{n, plural, =0 {no run came from a seed} one {one run} other {# runs}}: replayed on the twin, each to the journal that the book names',
  'cli.replay.differs': 'entry {seq}: run {run} replayed to another {what} than the book names',
  'cli.replay.number': '--replay takes a number of runs, 1 or more.',
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
