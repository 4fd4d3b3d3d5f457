/** The same in an order in which every arrangement is alike likely (R. Durstenfeld, Comm. ACM 7, 1964). */
export function shuffled(all: readonly number[], uniform: () => number): number[] {
  const order = [...all];
  for (let i = order.length - 1; i > 0; i--) {
    const j = Math.floor(uniform() * (i + 1));
    const [a, b] = [order[i] ?? NaN, order[j] ?? NaN];
    order[i] = b;
    order[j] = a;
  }
  return order;
}
