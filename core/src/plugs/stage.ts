import { assumedIn, defineStage } from '../findings'
import { isPlanned } from '../legs'
import { backFeed } from './check'
import { plugFits } from './check-fits'
import { programmerVoltage } from './check-voltage'
import type { PlugsResult, Way } from './result'
import { plugsOf, standingsOf } from './standing'
import { waysBack } from './ways'

declare module '../findings/results' {
  interface Results {
    plugs: PlugsResult
  }
}

export const plugsStage = defineStage({
  name: 'plugs',
  after: ['build', 'carrier', 'charging', 'needs', 'pins', 'power'],
  run: ({
    build: { support },
    carrier: { chip },
    charging: { charging },
    needs,
    pins,
    power: { supplies },
  }): PlugsResult => {
    const plugs = plugsOf(supplies, support, charging, chip)
    const standings = standingsOf(supplies, plugs)
    const ways = chip
      ? waysBack({
          supplies,
          chip,
          plan: pins.plan,
          support,
          charging,
          programmer: plugs.some((p) => p.id === 'programmer'),
        })
      : []
    const can = ways.flatMap(({ open, ...way }): Way[] => {
      const those = standings.filter(open).map((s) => s.id)
      return those.length > 0 ? [{ ...way, standings: those }] : []
    })
    return {
      plugs,
      standings,
      ways: can,
      lineless: !isPlanned(pins.plan) && needs.instances.length > 0,
      assumed: assumedIn(can.flatMap((w) => [w.current, w.voltage])),
    }
  },
  checks: [plugFits, backFeed, programmerVoltage],
})
