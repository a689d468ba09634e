import type { ClearanceLimits } from '../clearance/clearanceVerdict.js';
import type { CodeSheet, FamilyCodes } from '../codes/codeSheet.js';
import { numberOfLength } from '../measure/formatLength.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { eachFamily, FAMILIES, FAMILY_TABLE, type Family } from '../part/family.js';
import { type EngineType, type TypeFamily, typeFamilySchema } from './engineType.js';
import { clearanceLimitsOf } from './limits.js';

/**
 * The codes of an engine type as a code sheet, in the sheet's own unit: the open format that the command line checks. A family
 * without limits for its clearance, marks or grades has none yet.
 */
export function codeSheetOfType(type: EngineType): CodeSheet {
  const length = (value: Parameters<typeof numberOfLength>[0]) => numberOfLength(value, type.unit);
  const family = (name: Family): FamilyCodes | null => {
    const limits = clearanceLimitsOf(type.limits, name);
    const { housing, journal, grades, table } = type[name];
    if (!limits || housing.length === 0 || journal.length === 0 || grades.length === 0) return null;
    const band = ({ low, high }: ClearanceLimits) => ({ low: length(low), high: length(high) });
    return {
      limits: { ...band(limits), source: limits.source },
      aim: null,
      housing: housing.map((one) => ({ mark: one.mark, ...band(one) })),
      journal: journal.map((one) => ({ mark: one.mark, ...band(one) })),
      grades: grades.map((one) => ({ id: one.mark, ...band(one) })),
      table,
    };
  };
  return {
    format: 'fettle.code-sheet/1',
    name: type.name,
    unit: type.unit,
    rows: type.rows,
    ...eachFamily(family),
  };
}

/** Puts the codes of a code sheet into an engine type, in place of those it had; what the sheet leaves out stays. */
export function withCodeSheet(type: EngineType, sheet: CodeSheet): EngineType {
  const length = (value: number) => lengthOfNumber(value, sheet.unit);
  const band = ({ low, high }: { low: number; high: number }) => ({ low: length(low), high: length(high) });
  const family = (old: TypeFamily, codes: FamilyCodes | null): TypeFamily =>
    codes === null
      ? old
      : typeFamilySchema.parse({
          ...old,
          housing: codes.housing.map((one) => ({ mark: one.mark, ...band(one) })),
          journal: codes.journal.map((one) => ({ mark: one.mark, ...band(one) })),
          grades: codes.grades.map((one) => ({
            mark: one.id,
            ...band(one),
            paint: old.grades.find(({ mark }) => mark === one.id)?.paint ?? null,
          })),
          table: codes.table,
        });
  const limits = (codes: FamilyCodes | null) =>
    codes === null ? null : { ...band(codes.limits), source: codes.limits.source };
  return {
    ...type,
    rows: sheet.rows.length > 0 ? sheet.rows : type.rows,
    limits: {
      ...type.limits,
      ...Object.fromEntries(
        FAMILIES.map((name) => {
          const { key } = FAMILY_TABLE[name].clearance;
          return [key, limits(sheet[name]) ?? type.limits[key]];
        }),
      ),
    },
    ...eachFamily((name) => family(type[name], sheet[name])),
  };
}
