export const CONFIG = Symbol('Config');
