// Says so and ends with 1 while another process has a data folder. `tsx scripts/freeFolder.ts folder`
import { takeFolder } from '../server/safekeeping/onlyOne.ts'

try {
  const giveBack = await takeFolder(process.argv[2])
  giveBack()
} catch (e) {
  console.error((e as Error).message)
  process.exitCode = 1
}
