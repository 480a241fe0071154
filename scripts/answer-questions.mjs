// Runs a command at this terminal and presses Return at each of its questions but the last, for a picture of them.
// node scripts/answer-questions.mjs <questions> <command>
import { spawn } from 'node:child_process'
import { setTimeout as sleep } from 'node:timers/promises'

const [count = '1', command = ''] = process.argv.slice(2)
const child = spawn('script', ['-qec', `stty cols 113; ${command}`, '/dev/null'], {
  stdio: ['pipe', 'inherit', 'inherit'],
})
for (let asked = 1; asked < Number(count); asked++) {
  await sleep(1_200)
  child.stdin.write('\r')
}
await sleep(60_000)
