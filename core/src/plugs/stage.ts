import { defineStage } from '../findings'
import { backFeed } from './check'
import { type PlugsResult } from './result'
import { plugsOf, standingsOf } from './standing'
import { waysBack } from './ways'

declare module '../findings/results' {
  interface Results {
    plugs: PlugsResult
  }
}

export const plugsStage = defineStage({
  name: 'plugs',
  after: ['build', 'carrier', 'charging', 'pins', 'power'],
  run: ({
    build: { support },
    carrier: { chip },
    charging: { charging },
    pins,
    power: { supplies },
  }): PlugsResult => {
    const plugs = plugsOf(supplies, support, charging, chip)
    const standings = standingsOf(supplies, plugs)
    const ways = chip ? waysBack({ supplies, chip, plan: pins.plan, support, charging }) : []
    return {
      plugs,
      standings,
      ways: ways.flatMap(({ open, ...way }) => {
        const those = standings.filter(open).map((s) => s.id)
        return those.length > 0 ? [{ ...way, standings: those }] : []
      }),
    }
  },
  checks: [backFeed],
})
