/**
 * SQL: the place at which a container stands, as `as`; where it stands on a cart, the place at which the cart does. None where it is
 * carried about.
 */
export const standsAtSql = (container: string, as: string): string =>
  `LEFT JOIN place ${as}_cart ON ${as}_cart.id = ${container}.parent_id AND ${as}_cart.kind = 'cart' LEFT JOIN place ${as} ON ${as}.id = IF(${as}_cart.id IS NULL, ${container}.parent_id, ${as}_cart.parent_id)`;
