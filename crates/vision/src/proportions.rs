//! A page's own proportions, told from its corners in a picture, and the sizes of paper that have them.

use crate::quad::{Quad, length};

/// Sizes of pages that makers use, in inches; squares stand for all squares.
const SIZES: [(f64, f64); 7] = [
    (12.0, 12.0),
    (8.5, 11.0),
    (11.0, 8.5),
    (210.0 / 25.4, 297.0 / 25.4),
    (297.0 / 25.4, 210.0 / 25.4),
    (9.0, 12.0),
    (6.0, 8.0),
];
/// How far proportions may lie apart and be the same, as a share: those of an upright outline are exact, a photograph's are worked out.
const EXACT: f64 = 0.025;
const WORKED_OUT: f64 = 0.06;
/// What is worked out and what the sides tell may differ by this much, as a share; a page held askew shortens one side more.
const DOUBT: f64 = 0.12;
/// More sizes than this are no help.
const MOST: usize = 3;
/// A camera's focal length lies between these, in diagonals of the picture; anything else means that the corners don't tell it.
const FOCAL: (f64, f64) = (0.4, 6.0);

/// Width by height of the rectangle whose corners are seen at a quad, by Zhang and He, "Whiteboard scanning and image enhancement" (2007):
/// the picture's middle is taken for the lens's.
pub(crate) fn proportions(quad: &Quad, picture: (f64, f64)) -> f64 {
    let [tl, tr, br, bl] = quad.map(|[x, y]| [x - picture.0 / 2.0, y - picture.1 / 2.0, 1.0]);
    let k2 = dot(cross(tl, br), bl) / dot(cross(tr, br), bl);
    let k3 = dot(cross(tl, br), tr) / dot(cross(bl, br), tr);
    let along = |k: f64, m: [f64; 3]| [k * m[0] - tl[0], k * m[1] - tl[1], k * m[2] - tl[2]];
    let (across, down) = (along(k2, tr), along(k3, bl));
    let squared = -(across[0] * down[0] + across[1] * down[1]) / (across[2] * down[2]);
    let focal = squared.sqrt() / picture.0.hypot(picture.1);
    if !focal.is_finite() || focal < FOCAL.0 || focal > FOCAL.1 {
        return by_sides(quad);
    }
    let size = |n: [f64; 3]| ((n[0] * n[0] + n[1] * n[1]) / squared + n[2] * n[2]).sqrt();
    size(across) / size(down)
}

/// The same, where the lengths of the sides as seen don't speak against it: a sheet that is bent, or was cut out of its picture, is seen
/// at corners that no camera makes of a rectangle.
fn believed(quad: &Quad, picture: (f64, f64)) -> Option<f64> {
    let found = proportions(quad, picture);
    let by_sides = by_sides(quad);
    (found.is_finite() && (found / by_sides).ln().abs() < DOUBT).then_some(found)
}

fn by_sides(quad: &Quad) -> f64 {
    (length(quad[0], quad[1]) + length(quad[3], quad[2]))
        / (length(quad[0], quad[3]) + length(quad[1], quad[2])).max(1e-9)
}

/// Sizes of paper with a page's proportions, the likeliest first, in inches; none where the size that was said has them.
pub(crate) fn sizes_like(
    quads: &[Quad],
    picture: (f64, f64),
    said: (f64, f64),
    pages: u32,
) -> Vec<(f64, f64)> {
    let Some(quad) = quads.first() else {
        return Vec::new();
    };
    let each = if quads.len() > 1 { 1 } else { pages };
    let Some(found) = believed(quad, picture).map(|p| p / f64::from(each)) else {
        return Vec::new();
    };
    let is_upright = quad[0][1] == quad[1][1] && quad[0][0] == quad[3][0];
    let near = if is_upright { EXACT } else { WORKED_OUT };
    let apart = |(w, h): (f64, f64)| (found * h / w).ln().abs();
    if apart(said) < near {
        return Vec::new();
    }
    let mut like: Vec<(f64, f64)> = SIZES.into_iter().filter(|s| apart(*s) < near).collect();
    like.sort_by(|a, b| apart(*a).total_cmp(&apart(*b)));
    like.truncate(MOST);
    like
}

fn cross(a: [f64; 3], b: [f64; 3]) -> [f64; 3] {
    [
        a[1] * b[2] - a[2] * b[1],
        a[2] * b[0] - a[0] * b[2],
        a[0] * b[1] - a[1] * b[0],
    ]
}

fn dot(a: [f64; 3], b: [f64; 3]) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// A rectangle's corners as a camera at a distance sees them, tilted about two axes.
    fn seen(w: f64, h: f64, tilt: f64, lean: f64, focal: f64) -> Quad {
        let far = 3.0 * w.max(h);
        [(-w, -h), (w, -h), (w, h), (-w, h)].map(|(x, y)| {
            let (x, y) = (x / 2.0, y / 2.0);
            let (x, z) = (x * tilt.cos(), x * tilt.sin());
            let (y, z) = (
                y * lean.cos() - z * lean.sin(),
                y * lean.sin() + z * lean.cos(),
            );
            [600.0 + focal * x / (far + z), 400.0 + focal * y / (far + z)]
        })
    }

    proptest! {
        #[test]
        fn a_tilted_page_keeps_its_proportions(w in 4.0..14.0f64, h in 4.0..14.0f64, tilt in 0.15..0.5f64, lean in 0.15..0.5f64, focal in 900.0..3000.0f64) {
            let quad = seen(w, h, tilt, lean, focal);
            let found = proportions(&quad, (1200.0, 800.0));
            prop_assert!((found / (w / h)).ln().abs() < 0.02, "{found} for {}", w / h);
        }
    }

    #[test]
    fn an_upright_outline_suggests_its_paper() {
        let letter = [[10.0, 10.0], [860.0, 10.0], [860.0, 1110.0], [10.0, 1110.0]];
        let asked = |said, pages| sizes_like(&[letter], (900.0, 1200.0), said, pages);
        assert_eq!(asked((12.0, 12.0), 1), [(8.5, 11.0)]);
        assert!(asked((8.5, 11.0), 1).is_empty(), "the size said agrees");
        // Two pages in that outline are each half as wide, and no usual paper.
        assert!(asked((12.0, 12.0), 2).is_empty());
    }
}
