import { disk } from './disk'
import { hostile } from './hostile'
import { kill } from './kill'
import type { Campaign } from './kind'
import { soak } from './soak'
import { upgrade } from './upgrade'

/** Attacks on the whole application: npm run campaign -- NAME [times] [how many times longer things may take]. */
const CAMPAIGNS: Record<string, { campaign: Campaign; times: number }> = {
  upgrade: { campaign: upgrade, times: 200 },
  disk: { campaign: disk, times: 4 },
  hostile: { campaign: hostile, times: 99 },
  kill: { campaign: kill, times: 150 },
  soak: { campaign: soak, times: 30 },
}

const [name = '', wanted, patience = '1'] = process.argv.slice(2)
const chosen = CAMPAIGNS[name]
if (!chosen) {
  process.stderr.write(
    `Name a campaign:\n${Object.entries(CAMPAIGNS)
      .map(([key, { campaign }]) => `  ${key}: ${campaign.says}`)
      .join('\n')}\n`,
  )
  process.exit(1)
}
const times = Number(wanted ?? chosen.times)
const started = Date.now()
const tell = (line: string) => process.stdout.write(`${line}\n`)
const figures = await chosen.campaign.run(times, tell, Number(patience))
tell(`\n${figures.join('\n')}\n${name}: all held, ${times} times, ${Math.round((Date.now() - started) / 1000)} s`)
process.exit(0)
