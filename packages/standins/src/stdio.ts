/**
 * A stand-in for a maker's tool: `stdio.ts PORT` passes its own pipes on to a port of the simulated
 * bench, as a tool passes them on to a device. For the conformance suite, which runs over TCP and over
 * this alike.
 */
import { connect } from 'node:net'

const socket = connect({ host: '127.0.0.1', port: Number(process.argv[2]), noDelay: true })
process.stdin.pipe(socket)
socket.pipe(process.stdout)
socket.on('error', () => process.exit(1))
socket.on('close', () => process.exit(0))
