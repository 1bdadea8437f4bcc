import type { ValidationError } from 'class-validator';

/** The faults of a form by field; those of nested forms under "outer.inner". */
export function fieldsOf(faults: readonly ValidationError[], path = ''): Record<string, string> {
  const fields: Record<string, string> = {};
  for (const fault of faults) {
    const name = path ? `${path}.${fault.property}` : fault.property;
    const said = Object.values(fault.constraints ?? {});
    if (said[0]) fields[name] = said[0];
    Object.assign(fields, fieldsOf(fault.children ?? [], name));
  }
  return fields;
}
