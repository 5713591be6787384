/** The strip shows at most so many ladles; with more, every few are drawn as their mean. */
const widest = 40

export function ladleStrip(all: number[]): number[] {
  if (all.length <= widest) return all
  const step = Math.ceil(all.length / widest)
  const out: number[] = []
  for (let i = 0; i < all.length; i += step) {
    const some = all.slice(i, i + step)
    out.push(some.reduce((a, b) => a + b, 0) / some.length)
  }
  return out
}
