import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { developmentPlaces } from '../development-places.ts'
import { productionMode } from '../production-mode.ts'
import { causeOf, variablesIn } from '../variables.ts'

/** The build holds what only development has. */
export const developmentValue = defineCheck({
  code: 'env/development-value',
  severity: 'blocker',
  title: "The build holds development's value",
  keywords: ['staging', 'development', 'wrong mode', '.env.development'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const found = variablesIn('from development', 'development', evidence)
  // A build for development holds development's values, and is reported as one.
  if (found.length === 0 || developmentPlaces(evidence).places.length > 0) return []
  return causeOf(found, (names, are) => ({
    impact: `The site uses development's ${names}, for every visitor.`,
    cause: `The value of ${names} in the build ${are} the one that only development loads; production has another.`,
    fix: productionMode(evidence),
  }))
}
