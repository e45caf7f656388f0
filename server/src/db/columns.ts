/** Columns and keys that several tables have. */
export const id = { type: 'varchar', length: 24 } as const
export const moment = { type: 'datetime', precision: 3 } as const
export const cascading = { onDelete: 'CASCADE', onUpdate: 'NO ACTION' } as const
