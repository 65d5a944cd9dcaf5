// Loaded into the server by the benchmark: says, when it is asked, how long the longest turn of its main thread was since it was asked before.
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { writeFileSync } from 'node:fs';

const delay = monitorEventLoopDelay({ resolution: 5 });
delay.enable();
process.on('SIGUSR2', () => {
  writeFileSync(process.env.LONGEST_TURN ?? '', String(delay.max / 1e6));
  delay.reset();
});
