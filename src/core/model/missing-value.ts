/** Stands in an edit for a value that a person must give. */
export const missingValue = '…'
