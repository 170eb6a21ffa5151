//! The drawing of a layout in a manner, as SVG: every line is written here, so that the pencil may shake.

mod ground;
mod marks;
mod ornaments;

use crate::layout::Drawn;
use crate::manner::{Camera, Fill, Instrument, Manner, Mat, Page};
use image::RgbImage;
use metrosk_core::length::Unit;
use metrosk_core::sketch::{Block, Kind, Shape};
use rand::Rng;
use rand::rngs::StdRng;
use std::fmt::Write;
use std::sync::{Arc, LazyLock};

/// Pixels an inch.
pub(crate) const SCALE: f64 = 68.0;

pub(crate) type Point = (f64, f64);

/// What draws: the text so far, and how its lines are drawn.
pub(crate) struct Hand<'a> {
    text: String,
    manner: &'a Manner,
    luck: &'a mut StdRng,
    ink: &'static str,
    width: f64,
    clips: usize,
}

/// Inks by instrument; a drawing program has any.
const TINTS: [&str; 6] = [
    "#d9dde0", "#f3c9c4", "#cfe0ec", "#f2dfa8", "#cfe3cf", "#e6d3ea",
];
const GREYS: [&str; 3] = ["#dddddd", "#ececec", "#cccccc"];

/// The drawing's SVG. The page lies within a margin, by which it is found in the picture.
pub(crate) fn drawing(drawn: &Drawn, manner: &Manner, luck: &mut StdRng) -> String {
    let ink = match manner.instrument {
        Instrument::Vector => ["#111111", "#333333", "#222a3a"][luck.random_range(0..3)],
        Instrument::Pencil => ["#666666", "#787878"][luck.random_range(0..2)],
        Instrument::Pen => "#1c1c22",
        Instrument::Ballpoint => "#3346a8",
    };
    let width = match manner.instrument {
        Instrument::Vector => luck.random_range(1.2..3.0),
        Instrument::Pencil | Instrument::Ballpoint => luck.random_range(1.3..2.0),
        Instrument::Pen => luck.random_range(2.2..3.4),
    };
    let mut hand = Hand {
        text: String::new(),
        manner,
        luck,
        ink,
        width,
        clips: 0,
    };
    let paper = Paper::of(drawn, manner);
    let (w, h) = paper.page;
    hand.ground((f64::from(paper.size.0), f64::from(paper.size.1)));
    for (side, &(left, top)) in paper.pages.iter().enumerate() {
        hand.page_ground((left, top, w, h));
        hand.clipped(&rect(left, top, w, h), |hand| {
            // Moved so that the block's own place is where its page lies.
            let off = (left - side as f64 * w, top);
            for block in &drawn.sketch.blocks {
                hand.block(block, off);
            }
        });
        hand.page_outline((left, top, w, h));
    }
    let (left, top) = paper.pages[0];
    if manner.pages == 2 && !manner.apart {
        hand.line((left + w, top), (left + w, top + h));
    }
    hand.caption((left, top + h + 20.0, f64::from(paper.size.0) - 2.0 * left));
    format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{}\" height=\"{}\">{}</svg>",
        paper.size.0, paper.size.1, hand.text
    )
}

/// Where the pages lie in the drawing, in pixels.
pub(crate) struct Paper {
    /// The drawing's.
    pub(crate) size: (u32, u32),
    /// A page's.
    pub(crate) page: (f64, f64),
    /// Where each page begins.
    pub(crate) pages: Vec<Point>,
}

impl Paper {
    pub(crate) fn of(drawn: &Drawn, manner: &Manner) -> Paper {
        let (w, h) = (drawn.page.0 * SCALE, drawn.page.1 * SCALE);
        let is_apart = manner.pages == 2 && manner.apart;
        let gap = if is_apart { 40.0 } else { 0.0 };
        let margin = if manner.page == Page::Edge { 0.0 } else { 70.0 };
        let is_captioned = manner.camera == Camera::Captioned;
        let caption = if is_captioned { 90.0 } else { 0.0 };
        let count = f64::from(manner.pages);
        Paper {
            size: (
                (w * count + gap + 2.0 * margin) as u32,
                (h + 2.0 * margin + caption) as u32,
            ),
            page: (w, h),
            pages: (0..manner.pages)
                .map(|side| (margin + f64::from(side) * (w + gap), margin))
                .collect(),
        }
    }
}

fn rect(x: f64, y: f64, w: f64, h: f64) -> Vec<Point> {
    vec![(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
}

fn path(points: &[Point], closed: bool) -> String {
    let mut d = String::new();
    for (n, (x, y)) in points.iter().enumerate() {
        let _ = write!(d, "{}{x:.1} {y:.1}", if n == 0 { 'M' } else { 'L' });
    }
    if closed {
        d.push('Z');
    }
    d
}

impl Hand<'_> {
    fn put(&mut self, text: &str) {
        self.text.push_str(text);
    }

    fn chance(&mut self, share: f64) -> bool {
        self.luck.random_bool(share)
    }

    /// Shakes a line where it is drawn by hand.
    fn by_hand(&mut self, points: &[Point], closed: bool) -> Vec<Point> {
        if !self.manner.is_by_hand() {
            return points.to_vec();
        }
        let mut shaken = Vec::new();
        let count = if closed {
            points.len()
        } else {
            points.len() - 1
        };
        for n in 0..count {
            let (a, b) = (points[n], points[(n + 1) % points.len()]);
            let length = (b.0 - a.0).hypot(b.1 - a.1);
            let steps = (length / 28.0).ceil().max(1.0) as usize;
            let shake = (length / 260.0).clamp(0.3, 1.3);
            for step in 0..steps {
                let t = step as f64 / steps as f64;
                let by = |luck: &mut StdRng| luck.random_range(-shake..shake);
                shaken.push((
                    a.0 + (b.0 - a.0) * t + by(self.luck),
                    a.1 + (b.1 - a.1) * t + by(self.luck),
                ));
            }
        }
        if !closed {
            shaken.extend(points.last());
        }
        shaken
    }

    fn stroke_of(&mut self, points: &[Point], closed: bool, width: f64) {
        let shaken = self.by_hand(points, closed);
        let ink = self.ink;
        let line = format!(
            "<path d=\"{}\" fill=\"none\" stroke=\"{ink}\" stroke-width=\"{width:.1}\" stroke-linecap=\"round\" stroke-linejoin=\"round\"/>",
            path(&shaken, closed)
        );
        self.put(&line);
    }

    fn outline(&mut self, points: &[Point]) {
        self.stroke_of(points, true, self.width);
        // A hand goes over a line twice now and then.
        if self.manner.is_by_hand() && self.chance(0.12) {
            self.stroke_of(points, true, self.width * 0.8);
        }
    }

    fn line(&mut self, a: Point, b: Point) {
        self.stroke_of(&[a, b], false, self.width);
    }

    fn area(&mut self, points: &[Point], colour: &str) {
        let area = format!("<path d=\"{}\" fill=\"{colour}\"/>", path(points, true));
        self.put(&area);
    }

    fn tint(&mut self) -> &'static str {
        let from: &[&'static str] = if self.manner.coloured { &TINTS } else { &GREYS };
        from[self.luck.random_range(0..from.len())]
    }

    /// Draws within an outline.
    fn clipped(&mut self, points: &[Point], draw: impl FnOnce(&mut Self)) {
        self.clips += 1;
        let id = self.clips;
        let open = format!(
            "<clipPath id=\"c{id}\"><path d=\"{}\"/></clipPath><g clip-path=\"url(#c{id})\">",
            path(points, true)
        );
        self.put(&open);
        draw(self);
        self.put("</g>");
    }

    fn block(&mut self, block: &Block, off: Point) {
        let points = outline_of(block, off);
        let has_body = !matches!(block.kind, Kind::Title | Kind::Journal | Kind::Cluster);
        if self.manner.raised && has_body {
            self.shadow(&points);
        }
        match block.kind {
            Kind::Photo => self.photo(&points),
            Kind::Mat => self.mat(&points),
            Kind::Title => self.title(&points),
            Kind::Journal => self.journal(&points),
            Kind::Cluster => self.cluster(&points),
            Kind::Accent => {
                self.area(&points, self.paper_colour());
                self.outline(&points);
            }
            _ => self.paper(&points),
        }
    }

    /// What a thing throws on what it lies on.
    fn shadow(&mut self, points: &[Point]) {
        for n in 1..=4 {
            let by = f64::from(n) * 1.5;
            let moved: Vec<Point> = points.iter().map(|p| (p.0 + by, p.1 + by)).collect();
            let shade = path(&moved, true);
            self.put(&format!(
                "<path d=\"{shade}\" fill=\"#000000\" fill-opacity=\"0.06\"/>"
            ));
        }
    }

    fn paper(&mut self, points: &[Point]) {
        let colour = if self.manner.fill == Fill::Tint || self.manner.tinted {
            self.tint()
        } else {
            self.paper_colour()
        };
        self.area(points, colour);
        self.filled(points, self.manner.fill);
        if self.manner.outlined {
            self.outline(points);
        }
    }

    fn mat(&mut self, points: &[Point]) {
        let colour = match self.manner.mat {
            Mat::Tint | Mat::Bare => self.tint(),
            Mat::Double | Mat::Hatched => self.paper_colour(),
        };
        self.area(points, colour);
        if self.manner.mat == Mat::Hatched {
            self.filled(points, Fill::Hatch);
        }
        if self.manner.mat != Mat::Bare {
            self.outline(points);
        }
    }

    /// What shows where nothing is filled: the page's own paper.
    fn paper_colour(&self) -> &'static str {
        self.page_colour()
    }
}

/// A block's outline in pixels, turned as it lies.
pub(crate) fn outline_of(block: &Block, off: Point) -> Vec<Point> {
    let px = |l: metrosk_core::length::Length| l.to_units(Unit::Inch) * SCALE;
    let (x, y, w, h) = (
        px(block.rect.x) + off.0,
        px(block.rect.y) + off.1,
        px(block.rect.w),
        px(block.rect.h),
    );
    let unit: Vec<Point> = match &block.shape {
        Shape::Ellipse => (0..48)
            .map(|n| {
                let (sin, cos) = (f64::from(n) / 48.0 * std::f64::consts::TAU).sin_cos();
                (0.5 + cos / 2.0, 0.5 + sin / 2.0)
            })
            .collect(),
        Shape::Triangle(corner) => {
            let name = format!("{corner:?}").to_lowercase();
            let (right, low) = (name.contains("right"), name.contains("bottom"));
            let at = |x: bool, y: bool| (f64::from(u8::from(x)), f64::from(u8::from(y)));
            vec![at(right, low), at(!right, low), at(right, !low)]
        }
        Shape::Polygon(points) => points.iter().map(|p| (p[0], p[1])).collect(),
        Shape::Rect => rect(0.0, 0.0, 1.0, 1.0),
    };
    let (cx, cy) = (x + w / 2.0, y + h / 2.0);
    let (sin, cos) = block.turn.to_radians().sin_cos();
    unit.into_iter()
        .map(|(u, v)| {
            let (dx, dy) = (x + u * w - cx, y + v * h - cy);
            (cx + dx * cos - dy * sin, cy + dx * sin + dy * cos)
        })
        .collect()
}

/// The drawing's pixels.
pub(crate) fn rendered(text: &str) -> RgbImage {
    static FONTS: LazyLock<Arc<usvg::fontdb::Database>> = LazyLock::new(|| {
        let mut fonts = usvg::fontdb::Database::new();
        fonts.load_font_data(include_bytes!("../../core/fonts/PublicSans-Bold.ttf").to_vec());
        fonts.load_font_data(include_bytes!("../../core/fonts/PublicSans-Regular.ttf").to_vec());
        Arc::new(fonts)
    });
    let options = usvg::Options {
        fontdb: FONTS.clone(),
        font_family: "Public Sans".to_owned(),
        ..usvg::Options::default()
    };
    let tree = usvg::Tree::from_str(text, &options).expect("the machine writes SVG");
    let size = tree.size().to_int_size();
    let mut pixels =
        resvg::tiny_skia::Pixmap::new(size.width(), size.height()).expect("a drawing has a size");
    resvg::render(&tree, usvg::Transform::identity(), &mut pixels.as_mut());
    RgbImage::from_fn(size.width(), size.height(), |x, y| {
        let p = pixels.pixel(x, y).map(|p| p.demultiply());
        p.map_or(image::Rgb([255; 3]), |p| {
            image::Rgb([p.red(), p.green(), p.blue()])
        })
    })
}
