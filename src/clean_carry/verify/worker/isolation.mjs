// Takes away, before any component code runs, what a component must not have.
// The permission flags of Node stop files, child processes, threads and native code; sockets they do
// not stop, so every way to one is replaced here. Strings are no code in this realm (a flag).
import child from 'node:child_process';
import dgram from 'node:dgram';
import dns from 'node:dns';
import { EventEmitter } from 'node:events';
import http from 'node:http';
import http2 from 'node:http2';
import https from 'node:https';
import inspector from 'node:inspector';
import module, { syncBuiltinESMExports } from 'node:module';
import net from 'node:net';
import stream from 'node:stream';
import threads from 'node:worker_threads';
import tls from 'node:tls';
import { hardened, lockdown, overridable } from './lockdown.mjs';

const refuse = (what) => function refused() {
  throw new Error(`${what} is not available to components`);
};

function namesIn(proto) {
  const found = [];
  for (let here = proto; here && here !== Object.prototype; here = Object.getPrototypeOf(here)) found.push(...Object.getOwnPropertyNames(here));
  return found.filter((name) => name !== 'constructor' && typeof proto[name] === 'function');
}

const TAKEN = [
  [net, ['connect', 'createConnection', 'createServer', 'Socket', 'Server', 'Stream']],
  [tls, ['connect', 'createServer', 'TLSSocket', 'Server']],
  [dgram, ['createSocket', 'Socket']],
  [http, ['request', 'get', 'createServer', 'Server', 'ClientRequest']],
  [https, ['request', 'get', 'createServer', 'Server']],
  [http2, ['connect', 'createServer', 'createSecureServer']],
  // Whatever asks for a name, however it is called.
  ...[dns, dns.promises].map((owner) => [owner, Object.keys(owner).filter((name) => typeof owner[name] === 'function')]),
  [dns.Resolver.prototype, namesIn(dns.Resolver.prototype)],
  [dns.promises.Resolver.prototype, namesIn(dns.promises.Resolver.prototype)],
  [child, ['spawn', 'spawnSync', 'exec', 'execSync', 'execFile', 'execFileSync', 'fork']],
  [threads, ['Worker']],
  [inspector, ['open', 'Session']],
];

/** Replace everything that opens a socket. Runs before the page library is loaded. */
export function takeSockets() {
  net.Socket.prototype.connect = refuse('net');
  net.Server.prototype.listen = refuse('net');
  dgram.Socket.prototype.bind = refuse('dgram');
  dgram.Socket.prototype.send = refuse('dgram');
  dgram.Socket.prototype.connect = refuse('dgram');
  for (const [owner, names] of TAKEN) {
    for (const name of names) {
      if (!(name in owner)) continue;
      const original = owner[name];
      const taken = refuse(name);
      // Libraries extend some of these; the prototype stays, its way out is gone.
      if (typeof original === 'function' && original.prototype) taken.prototype = original.prototype;
      owner[name] = taken;
    }
  }
  syncBuiltinESMExports();
  for (const name of ['fetch', 'WebSocket', 'EventSource', 'BroadcastChannel']) delete globalThis[name];
}

/** Take away what a process may do to others, and to itself. */
export function takePowers() {
  for (const name of ['binding', '_linkedBinding', 'dlopen', 'kill', '_kill', 'abort', 'chdir', 'setuid', '_debugProcess', '_debugEnd']) {
    Object.defineProperty(process, name, { value: undefined, configurable: false, writable: false });
  }
}

/**
 * Take away loading and the process's own powers, and lock what is left. Runs after the page library is loaded;
 * `libraries` are what its modules export.
 */
export function takeProcess(libraries) {
  module._load = refuse('require');
  module.prototype.require = refuse('require');
  takePowers();
  for (const name of ['getBuiltinModule', 'mainModule', 'openStdin', 'report']) Object.defineProperty(process, name, { value: undefined, configurable: false, writable: false });
  for (const name of Object.keys(process.env)) delete process.env[name];
  const seen = lockdown();
  for (const { prototype } of [EventEmitter, stream.Readable, stream.Writable, stream.Duplex, stream.Transform]) overridable(prototype, seen);
  for (const root of [EventEmitter, ...Object.values(stream), Buffer, URL, ...libraries]) hardened(root, seen);
}
