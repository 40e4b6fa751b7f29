/** SQLSTATE of what PostgreSQL refused, through Sequelize or not, or null. */
export function sqlState(error: unknown): string | null {
  const { parent, code } = (error ?? {}) as { parent?: { code?: unknown }; code?: unknown };
  const state = parent?.code ?? code;
  return typeof state === 'string' && /^[0-9A-Z]{5}$/.test(state) ? state : null;
}
