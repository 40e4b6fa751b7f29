import { spawn } from 'node:child_process';

/**
 * Runs a command to its end. `input` goes to its standard input: what must not be seen in a list of processes or in an error.
 * @returns its standard output. Throws with the end of its output when it fails.
 */
export function run(command, args, { input, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: [input === undefined ? 'ignore' : 'pipe', 'pipe', 'pipe'], ...options });
    if (input !== undefined) {
      child.stdin.on('error', () => undefined); // a command that ends without reading says why itself
      child.stdin.end(input);
    }
    let out = '';
    let err = '';
    child.stdout?.on('data', (chunk) => {
      out += chunk;
    });
    child.stderr?.on('data', (chunk) => {
      err += chunk;
    });
    child.on('error', reject);
    child.on('close', (code, signal) => {
      if (code === 0) resolve(out);
      else reject(Object.assign(new Error(`${command} ${args.join(' ')} ended with ${code ?? signal}\n${(out + err).slice(-3000)}`), { code, out, err }));
    });
  });
}

/** Runs a command that may speak for itself. @returns its exit code */
export function runShown(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('close', (code) => resolve(code ?? 1));
  });
}
