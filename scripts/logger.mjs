// The stand-in loggers by themselves: devices that ride simulated trails. `npm run logger`
// WILD_SPRING_LOGGER_PORT and WILD_SPRING_LOGGER_PACE: see logger/start.ts. Start Wild Spring beside it.
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
process.exit(run(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'logger/start.ts'], { cwd: root }))
