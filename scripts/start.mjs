import { spawn } from 'node:child_process';
import { build, install, ROOT, say, SERVER } from './prepare.mjs';

install();
const asked = process.argv.slice(2);
if (!asked.includes('--check')) {
  build();
  say('Starting the server.');
}
const server = spawn(process.execPath, [...SERVER, ...asked], { cwd: ROOT, stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
