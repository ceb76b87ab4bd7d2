/** A number with up to 2 decimals as it is kept and sent, no sign but a minus: marks, points. */
export const keptDecimal = /^-?\d{1,5}(\.\d{1,2})?$/;
