export const FREE = 4;
