//! Pictures of sketches, as makers have them: a clean diagram, a pencil sketch, a phone's photo of one. Drawn by code from a seed.

use image::{Rgb, RgbImage};
use imageproc::geometric_transformations::{Border, Interpolation, Projection, warp_into};
use metrosk_core::length::Unit;
use metrosk_core::sketch::{Block, Kind, Shape, Sketch};
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};

/// How a picture is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Style {
    /// Straight strokes, filled areas.
    Clean,
    /// Strokes by hand, photos crossed out.
    Pencil,
    /// A pencil sketch photographed at an angle on a dark table.
    Phone,
}

/// Pixels an inch.
const SCALE: f64 = 90.0;
/// Paper round the page.
const MARGIN: f64 = 60.0;
const PAPER: [u8; 3] = [247, 246, 242];
const STROKE: [u8; 3] = [70, 70, 74];

/// A picture of a sketch.
#[must_use]
pub fn picture(sketch: &Sketch, style: Style, seed: u64) -> RgbImage {
    let mut pen = Pen::new(sketch, style, seed);
    let (w, h) = (pen.page.0, pen.page.1);
    for block in &sketch.blocks {
        pen.block(block);
    }
    pen.outline(&[[0.0, 0.0], [w, 0.0], [w, h], [0.0, h]]);
    if sketch.canvas.pages == 2 {
        pen.stroke([w / 2.0, 0.0], [w / 2.0, h], STROKE);
    }
    if style == Style::Phone {
        photographed(&pen.image)
    } else {
        pen.image
    }
}

struct Pen {
    image: RgbImage,
    page: (f64, f64),
    style: Style,
    hand: StdRng,
}

impl Pen {
    fn new(sketch: &Sketch, style: Style, seed: u64) -> Pen {
        let inches = |l: metrosk_core::length::Length| l.to_units(Unit::Inch);
        let page = (
            inches(sketch.canvas.width()) * SCALE,
            inches(sketch.canvas.page.h) * SCALE,
        );
        let image = RgbImage::from_pixel(
            (page.0 + 2.0 * MARGIN) as u32,
            (page.1 + 2.0 * MARGIN) as u32,
            Rgb(PAPER),
        );
        Pen {
            image,
            page,
            style,
            hand: StdRng::seed_from_u64(seed),
        }
    }

    fn block(&mut self, block: &Block) {
        let px = |ticks: f64| ticks / Unit::Inch.ticks() as f64 * SCALE;
        let s = block.extent();
        let (l, t, r, b) = (px(s.l), px(s.t), px(s.r), px(s.b));
        let (cx, cy) = ((l + r) / 2.0, (t + b) / 2.0);
        let (sin, cos) = block.turn.to_radians().sin_cos();
        let turned = |[x, y]: [f64; 2]| {
            [
                cx + (x - cx) * cos - (y - cy) * sin,
                cy + (x - cx) * sin + (y - cy) * cos,
            ]
        };
        let corners = [[l, t], [r, t], [r, b], [l, b]].map(turned);
        let fill = match (self.style, block.kind) {
            (Style::Clean, Kind::Photo) => [160, 160, 160],
            (Style::Clean, Kind::Strip) => [214, 214, 214],
            (Style::Clean, Kind::Paper) => [236, 236, 236],
            (Style::Clean, _) => [255, 255, 255],
            _ => PAPER,
        };
        match (block.kind, &block.shape) {
            (Kind::Journal, _) => {
                let mut y = t;
                while y <= b + 1.0 {
                    self.stroke(
                        [l, y],
                        [if y + 20.0 > b { l + (r - l) * 0.7 } else { r }, y],
                        [120, 120, 124],
                    );
                    y += ((b - t) / 3.0).clamp(16.0, 40.0);
                }
            }
            (Kind::Photo | Kind::Mat | Kind::Paper | Kind::Strip, Shape::Rect) => {
                self.fill(&corners, fill);
                self.outline(&corners);
                if block.kind == Kind::Photo && self.style != Style::Clean {
                    let inner = |[x, y]: [f64; 2]| [cx + (x - cx) * 0.9, cy + (y - cy) * 0.9];
                    self.stroke(inner(corners[0]), inner(corners[2]), [130, 130, 134]);
                    self.stroke(inner(corners[1]), inner(corners[3]), [130, 130, 134]);
                }
            }
            // The rest has pictures of its own in the cases; here it is left out.
            _ => {}
        }
    }

    fn outline(&mut self, corners: &[[f64; 2]]) {
        for (k, a) in corners.iter().enumerate() {
            self.stroke(*a, corners[(k + 1) % corners.len()], STROKE);
        }
    }

    /// A stroke; by hand it wanders a little and runs over its ends.
    fn stroke(&mut self, a: [f64; 2], b: [f64; 2], tone: [u8; 3]) {
        let long = (b[0] - a[0]).hypot(b[1] - a[1]);
        let (dx, dy) = ((b[0] - a[0]) / long, (b[1] - a[1]) / long);
        let by_hand = self.style != Style::Clean;
        let over = if by_hand {
            self.hand.random_range(0.0..4.0)
        } else {
            0.0
        };
        let (wave, amount) = (
            self.hand.random_range(0.0..6.0),
            if by_hand { 0.9 } else { 0.0 },
        );
        let thick = if by_hand { 1.4 } else { 1.1 };
        let mut at = -over;
        while at <= long + over {
            let off = ((at / 70.0 + wave).sin() + (at / 23.0).sin() * 0.4) * amount;
            let (x, y) = (
                a[0] + dx * at - dy * off + MARGIN,
                a[1] + dy * at + dx * off + MARGIN,
            );
            self.dab(x, y, thick, tone);
            at += 0.5;
        }
    }

    fn dab(&mut self, x: f64, y: f64, r: f64, tone: [u8; 3]) {
        for py in (y - r - 1.0).floor() as i64..=(y + r + 1.0).ceil() as i64 {
            for px in (x - r - 1.0).floor() as i64..=(x + r + 1.0).ceil() as i64 {
                let far = (px as f64 + 0.5 - x).hypot(py as f64 + 0.5 - y);
                let share = (r + 0.5 - far).clamp(0.0, 1.0);
                if share > 0.0
                    && px >= 0
                    && py >= 0
                    && (px as u32) < self.image.width()
                    && (py as u32) < self.image.height()
                {
                    let pixel = self.image.get_pixel_mut(px as u32, py as u32);
                    for k in 0..3 {
                        pixel[k] = pixel[k].min(
                            (f64::from(pixel[k]) * (1.0 - share) + f64::from(tone[k]) * share)
                                as u8,
                        );
                    }
                }
            }
        }
    }

    /// Fills a convex shape.
    fn fill(&mut self, corners: &[[f64; 2]], tone: [u8; 3]) {
        let inside = |x: f64, y: f64| {
            (0..corners.len()).all(|k| {
                let (a, b) = (corners[k], corners[(k + 1) % corners.len()]);
                (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]) >= 0.0
            })
        };
        for (x, y, pixel) in self.image.enumerate_pixels_mut() {
            let (px, py) = (f64::from(x) + 0.5 - MARGIN, f64::from(y) + 0.5 - MARGIN);
            if px >= 0.0 && py >= 0.0 && px <= self.page.0 && py <= self.page.1 && inside(px, py) {
                *pixel = Rgb(tone);
            }
        }
    }
}

/// The sheet on a dark table, at an angle, the light falling from one side.
fn photographed(sheet: &RgbImage) -> RgbImage {
    let (w, h) = (sheet.width() as f32, sheet.height() as f32);
    let (tw, th) = (w * 1.35, h * 1.5);
    let from = [(0.0, 0.0), (w, 0.0), (w, h), (0.0, h)];
    let to = [
        (tw * 0.13, th * 0.15),
        (tw * 0.88, th * 0.19),
        (tw * 0.85, th * 0.84),
        (tw * 0.16, th * 0.80),
    ];
    let mut photo = RgbImage::from_pixel(tw as u32, th as u32, Rgb([84, 60, 44]));
    if let Some(projection) = Projection::from_control_points(from, to) {
        warp_into(
            sheet,
            projection,
            Interpolation::Bilinear,
            Border::Constant(Rgb([84, 60, 44])),
            &mut photo,
        );
    }
    for (x, y, pixel) in photo.enumerate_pixels_mut() {
        let light = 1.0 - 0.3 * (x as f32 / tw) - 0.1 * (y as f32 / th);
        for k in 0..3 {
            pixel[k] = (f32::from(pixel[k]) * light) as u8;
        }
    }
    photo
}
