export const BEGIN: number
export function begin(): void
