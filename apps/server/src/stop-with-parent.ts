/** Started by the start command, a server ends with it, even when that is killed and can say nothing more. */
export function stopWithParent(): void {
  if (process.send !== undefined) process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
}
