//! The page brought upright: its colours, its brightness and its ink, at one scale whatever the picture.

use crate::page::{self, Found};
use crate::plane::{Mask, Plane};
use crate::quad::{self, Quad};
use image::RgbImage;

/// Pixels along a page's longer side.
pub(crate) const SIDE: f64 = 1200.0;
/// Pixels of surroundings kept round the page, so that its outline is seen whole.
pub(crate) const RIM: usize = 30;

/// The upright page or spread. Places on it are pixels from the page's top left corner; the planes are `RIM` larger on every side.
#[derive(Debug)]
pub(crate) struct Sheet {
    /// Page width and height in pixels; a spread is two pages wide.
    pub(crate) page_w: f64,
    pub(crate) page_h: f64,
    pub(crate) pages: u32,
    pub(crate) gray: Plane,
    pub(crate) colours: [Plane; 3],
    /// Black-hat: how much darker than its surroundings a thin thing is.
    pub(crate) ink: Plane,
    /// What counts as ink.
    pub(crate) level: f32,
    /// Where the page lay in the picture: one quad, or one a page.
    pub(crate) quads: Vec<Quad>,
}

impl Sheet {
    pub(crate) fn w(&self) -> f64 {
        self.page_w * f64::from(self.pages)
    }

    /// Whether a pixel of the planes holds ink.
    pub(crate) fn inked(&self) -> Mask {
        let mut mask = Mask::of(&self.ink, |v| v > self.level);
        self.clear_frame(&mut mask);
        mask
    }

    /// Takes out the page's own outline, what lies outside it, and a fold line.
    pub(crate) fn clear_frame(&self, mask: &mut Mask) {
        let near = 6;
        let (w, h) = (mask.w, mask.h);
        let fold = (self.pages == 2).then_some((RIM as f64 + self.page_w) as usize);
        let drawn = fold.filter(|&x| {
            let inked = (RIM..h - RIM)
                .filter(|&y| (x - 4..=x + 4).any(|x| mask.at(x, y)))
                .count();
            inked * 10 > (h - 2 * RIM) * 6
        });
        for y in 0..h {
            for x in 0..w {
                let out =
                    x < RIM + near || y < RIM + near || x + RIM + near >= w || y + RIM + near >= h;
                let fold = drawn.is_some_and(|f| x.abs_diff(f) <= 5);
                if out || fold {
                    mask.data[y * w + x] = false;
                }
            }
        }
    }
}

/// The brightness of a picture, 0 to 255.
pub(crate) fn brightness(picture: &RgbImage) -> Plane {
    let data = picture
        .pixels()
        .map(|p| 0.299 * f32::from(p[0]) + 0.587 * f32::from(p[1]) + 0.114 * f32::from(p[2]))
        .collect();
    Plane {
        w: picture.width() as usize,
        h: picture.height() as usize,
        data,
    }
}

/// Brings the page upright. Two pages drawn apart are brought together.
pub(crate) fn upright(picture: &RgbImage, found: &Found, page: (f64, f64), pages: u32) -> Sheet {
    let scale = SIDE / page.0.max(page.1);
    let (pw, ph) = (page.0 * scale, page.1 * scale);
    let spread = |quads: &[Quad]| {
        joined(
            picture,
            quads,
            pw * f64::from(pages) / quads.len() as f64,
            ph,
        )
    };
    let mut quads = found.quads.clone();
    let mut colours = spread(&quads);
    let bright = |c: &[Plane; 3]| {
        let gray = c[0]
            .with(&c[1], |r, g| 0.299 * r + 0.587 * g)
            .with(&c[2], |a, b| a + 0.114 * b);
        if found.photographed {
            page::evened(&gray)
        } else {
            gray
        }
    };
    let mut gray = bright(&colours);
    let mut ink = gray.black_hat(8);
    let strong = ink.quantile(0.99, 5);
    if pages == 2
        && quads.len() == 1
        && found.outlined
        && let Some((left, right)) = page::gap(&ink, strong * 0.4, RIM, SIDE / 12.0)
        && let Some(apart) = apart(
            &quads[0],
            pw * 2.0,
            ph,
            left - RIM as f64,
            right - RIM as f64,
        )
    {
        quads = apart;
        colours = spread(&quads);
        gray = bright(&colours);
        ink = gray.black_hat(8);
    }
    let mut sample: Vec<f32> = ink
        .data
        .iter()
        .step_by(3)
        .copied()
        .filter(|&v| v > 10.0)
        .collect();
    let strong = crate::plane::quantile(&mut sample, 0.93).max(20.0);
    let level = (strong * 0.27).max(9.0);
    let ink = with_steps(ink, &gray, strong, level);
    Sheet {
        page_w: pw,
        page_h: ph,
        pages,
        gray,
        colours,
        ink,
        level,
        quads,
    }
}

/// Adds steps of tone that have no stroke of their own: the edge of a filled area without an outline, or with one hardly darker than it.
fn with_steps(mut ink: Plane, gray: &Plane, strong: f32, level: f32) -> Plane {
    let (w, h) = (gray.w, gray.h);
    let soft = gray.blurred(1);
    let near = Mask::of(&ink, |v| v > level).grown(2);
    let least = (0.13 * strong).max(9.0);
    let (mut steep, mut slopes) = (Plane::new(w, h), vec![(0.0_f32, 0.0_f32); w * h]);
    for y in 1..h - 1 {
        for x in 1..w - 1 {
            let i = y * w + x;
            let (gx, gy) = (
                (soft.data[i + 1] - soft.data[i - 1]) / 2.0,
                (soft.data[i + w] - soft.data[i - w]) / 2.0,
            );
            slopes[i] = (gx, gy);
            steep.data[i] = gx.hypot(gy);
        }
    }
    let mut ridge = Vec::new();
    for y in 3..h - 3 {
        for x in 3..w - 3 {
            let i = y * w + x;
            let v = steep.data[i];
            if v < least || near.data[i] {
                continue;
            }
            // The steepest place along the slope's own direction.
            let (gx, gy) = (slopes[i].0 / v, slopes[i].1 / v);
            let at = |d: f32| steep.sample_bilinear(x as f32 + gx * d, y as f32 + gy * d);
            if [1.0, 2.0].iter().all(|&d| v >= at(d) && v >= at(-d)) {
                ridge.push((x, y));
            }
        }
    }
    for (x, y) in ridge {
        for (dx, dy) in [(0, 0), (1, 0), (0, 1), (-1_i32, 0), (0, -1_i32)] {
            let i = (y as i32 + dy) as usize * w + (x as i32 + dx) as usize;
            ink.data[i] = ink.data[i].max(strong * if (dx, dy) == (0, 0) { 0.5 } else { 0.3 });
        }
    }
    ink
}

/// The quads of two pages in one quad, split at two places of its width.
fn apart(whole: &Quad, w: f64, h: f64, left: f64, right: f64) -> Option<Vec<Quad>> {
    let back = quad::onto(w, h, whole)?;
    let corner = |x: f64, y: f64| quad::project_point(&back, [x, y]);
    Some(vec![
        [whole[0], corner(left, 0.0), corner(left, h), whole[3]],
        [corner(right, 0.0), whole[1], whole[2], corner(right, h)],
    ])
}

/// The quads side by side, upright, with the rim round them: red, green and blue.
fn joined(picture: &RgbImage, quads: &[Quad], w: f64, h: f64) -> [Plane; 3] {
    let n = quads.len();
    let (width, height) = ((w * n as f64) as usize + 2 * RIM, h as usize + 2 * RIM);
    let backs: Vec<_> = quads.iter().map(|q| quad::onto(w, h, q)).collect();
    let mut out = [
        Plane::new(width, height),
        Plane::new(width, height),
        Plane::new(width, height),
    ];
    let (most_x, most_y) = (picture.width() as usize - 1, picture.height() as usize - 1);
    let pixels = picture.as_raw();
    for y in 0..height {
        for x in 0..width {
            let (px, py) = (x as f64 + 0.5 - RIM as f64, y as f64 + 0.5 - RIM as f64);
            let k = ((px / w).max(0.0) as usize).min(n - 1);
            let Some(back) = &backs[k] else { continue };
            let [u, v] = quad::project_point(back, [px - w * k as f64, py]);
            let (u, v) = (
                (u as f32 - 0.5).clamp(0.0, most_x as f32),
                (v as f32 - 0.5).clamp(0.0, most_y as f32),
            );
            let (x0, y0) = (u as usize, v as usize);
            let (x1, y1) = ((x0 + 1).min(most_x), (y0 + 1).min(most_y));
            let (fu, fv) = (u - x0 as f32, v - y0 as f32);
            let at =
                |x: usize, y: usize, c: usize| f32::from(pixels[(y * (most_x + 1) + x) * 3 + c]);
            for (c, plane) in out.iter_mut().enumerate() {
                let top = at(x0, y0, c) * (1.0 - fu) + at(x1, y0, c) * fu;
                let bottom = at(x0, y1, c) * (1.0 - fu) + at(x1, y1, c) * fu;
                plane.data[y * width + x] = top * (1.0 - fv) + bottom * fv;
            }
        }
    }
    out
}
