// Geometry of the plan, in metres: what a drawing board asks while somebody draws. The server asks again, on the ellipsoid.
export const apart = ([x1, y1], [x2, y2]) => Math.hypot(x2 - x1, y2 - y1);

// Twice the shoelace sum, halved: square metres.
export const area = (ring) => Math.abs(ring.reduce((sum, [x, y], place) => {
  const [nextX, nextY] = ring[(place + 1) % ring.length];
  return sum + x * nextY - nextX * y;
}, 0)) / 2;

// The point of a line from start to end that is nearest to a spot.
export function nearest(spot, start, end) {
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const length = dx * dx + dy * dy;
  const share = length ? Math.min(Math.max(((spot[0] - start[0]) * dx + (spot[1] - start[1]) * dy) / length, 0), 1) : 0;
  return [start[0] + share * dx, start[1] + share * dy];
}

const sides = (ring) => ring.map((corner, place) => [corner, ring[(place + 1) % ring.length]]);

// A ring's side that is nearest to a spot: its place, the point on it, and how far it is.
export const nearestSide = (spot, ring) => sides(ring)
  .map(([start, end], place) => ({ place, at: nearest(spot, start, end) }))
  .map((side) => ({ ...side, far: apart(spot, side.at) }))
  .reduce((best, side) => (!best || side.far < best.far ? side : best), null);

const turn = (a, b, c) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

// Where two sides cross inside, or nothing.
function meet([a, b], [c, d]) {
  const [before, after] = [turn(c, d, a), turn(c, d, b)];
  if (before * after >= 0 || turn(a, b, c) * turn(a, b, d) >= 0) return null;
  const share = before / (before - after);
  return [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
}

// Where a ring crosses itself first, or nothing.
export function crossing(ring) {
  const all = sides(ring);
  for (let first = 0; first < all.length; first++) {
    for (let second = first + 2; second < all.length; second++) {
      const spot = meet(all[first], all[second]);
      if (spot) return spot;
    }
  }
  return null;
}

// What a spot is drawn to: a corner of another ring within so many metres, else a side of one; itself where there is none.
export function snapped(spot, rings, within) {
  const corner = rings.flat().map((at) => ({ at, far: apart(spot, at) })).reduce((best, next) => (!best || next.far < best.far ? next : best), null);
  if (corner && corner.far <= within) return corner.at;
  const side = rings.map((ring) => nearestSide(spot, ring)).reduce((best, next) => (!best || next.far < best.far ? next : best), null);
  return side && side.far <= within ? side.at : spot;
}
