import type { Bike } from '#contract/bike'
import { pressureChecks, remindersFor, type Occasion, type Reminder } from '#core/care/reminders'
import { useGarage } from '../stores/garage.ts'
import { localToday } from '../support/dates.ts'

/** What a bike should be looked after for, on an occasion; today, where nothing else is said. */
export function useReminders() {
  const garage = useGarage()
  return {
    remindersOf(bike: Bike, occasion: Partial<Occasion> = {}): Reminder[] {
      const entries = garage.servicesOf(bike.id)
      const now = { date: localToday(), airTempC: null, altitudeM: null, place: '', ...occasion }
      const units = garage.unitsOf(bike)
      const checks = pressureChecks(garage.currentSetup(bike.id), units, entries)
      return remindersFor(checks, now, entries, units).filter((r) => r.kind !== 'never')
    },
  }
}
