import { spawn } from 'node:child_process';
import { install, ROOT, say, SERVER } from './prepare.mjs';

// The server on its own port, restarted on change; Vite in front of it with hot reload.
install();
say('Hot reload: open the address that Vite prints.');
const both = [
  spawn(process.execPath, ['--watch', ...SERVER], { cwd: ROOT, stdio: 'inherit' }),
  spawn('npx', ['vite', 'packages/web'], { cwd: ROOT, stdio: 'inherit' }),
];
const stop = () => both.forEach((p) => p.kill());
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, stop);
for (const p of both) p.on('exit', stop);
