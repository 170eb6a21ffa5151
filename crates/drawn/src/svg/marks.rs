//! How photos, fillings, words and clusters are told.

use super::{Hand, Point, rect};
use crate::letters::word;
use crate::manner::{Fill, Journal, Photo, Title};
use rand::Rng;
use std::f64::consts::TAU;

const WORDS: [&str; 5] = ["TEA TENT", "RED NOSES", "KITES", "LOW SUN", "HOLD FAST"];

/// The box round an outline: left, top, width, height.
pub(super) fn bounds(points: &[Point]) -> (f64, f64, f64, f64) {
    let low = |f: fn(&Point) -> f64| points.iter().map(f).fold(f64::INFINITY, f64::min);
    let high = |f: fn(&Point) -> f64| points.iter().map(f).fold(f64::NEG_INFINITY, f64::max);
    let (l, t) = (low(|p| p.0), low(|p| p.1));
    (l, t, high(|p| p.0) - l, high(|p| p.1) - t)
}

/// Points round a middle, at distances that take turns.
pub(super) fn star((cx, cy): Point, count: usize, far: f64, near: f64) -> Vec<Point> {
    (0..2 * count)
        .map(|n| {
            let r = if n % 2 == 0 { far } else { near };
            let (sin, cos) = (n as f64 / (2 * count) as f64 * TAU).sin_cos();
            (cx + r * cos, cy + r * sin)
        })
        .collect()
}

pub(super) fn round((cx, cy): Point, r: f64) -> Vec<Point> {
    star((cx, cy), 12, r, r)
}

impl Hand<'_> {
    pub(super) fn photo(&mut self, points: &[Point]) {
        let (x, y, w, h) = bounds(points);
        let grey = ["#9aa0a6", "#b4b9be", "#c6cad0"][self.luck.random_range(0..3)];
        match self.manner.photo {
            Photo::Grey | Photo::Camera => self.area(points, grey),
            Photo::Landscape => {
                self.area(points, "#dfe2ea");
                self.clipped(points, |hand| hand.landscape((x, y, w, h)));
            }
            _ => self.area(points, self.page_colour()),
        }
        match self.manner.photo {
            Photo::Word => self.written(
                "PHOTO",
                (x + w * 0.2, y + h / 2.0 - w * 0.06, w * 0.6, w * 0.13),
            ),
            Photo::Size => {
                let text = ["4x6", "3x4", "5x7"][self.luck.random_range(0..3)];
                self.written(
                    text,
                    (x + w * 0.3, y + h / 2.0 - w * 0.08, w * 0.4, w * 0.17),
                );
            }
            Photo::Crossed => {
                let n = points.len();
                for k in [0, n / 4] {
                    self.line(points[k], points[k + n / 2]);
                }
            }
            Photo::Camera => {
                let body = rect(x + w * 0.35, y + h * 0.42, w * 0.3, h * 0.2);
                self.outline(&body);
                self.outline(&round((x + w / 2.0, y + h * 0.52), w.min(h) * 0.06));
            }
            _ => {}
        }
        let is_filled = matches!(
            self.manner.photo,
            Photo::Grey | Photo::Camera | Photo::Landscape
        );
        if self.manner.framed || !is_filled {
            self.outline(points);
        }
    }

    fn landscape(&mut self, (x, y, w, h): (f64, f64, f64, f64)) {
        let peak = self.luck.random_range(0.25..0.5);
        let hills = [
            (x, y + h),
            (x, y + h * 0.7),
            (x + w * peak, y + h * 0.4),
            (x + w * 0.6, y + h * 0.75),
            (x + w * 0.8, y + h * 0.55),
            (x + w, y + h * 0.8),
            (x + w, y + h),
        ];
        self.area(&hills, "#8b939e");
        self.area(
            &round((x + w * 0.75, y + h * 0.25), w.min(h) * 0.08),
            "#f8f6ea",
        );
    }

    /// A word as the manner writes: by hand or in print.
    fn written(&mut self, text: &str, at: (f64, f64, f64, f64)) {
        if self.manner.is_by_hand() {
            for stroke in word(text, at) {
                self.stroke_of(&stroke, false, self.width);
            }
        } else {
            self.print(text, (at.0, at.1 + at.3), at.3 * 1.25, false);
        }
    }

    pub(super) fn filled(&mut self, points: &[Point], fill: Fill) {
        let (x, y, w, h) = bounds(points);
        let (step, width) = (
            self.luck.random_range(13.0..24.0),
            (self.width * 0.6).max(0.9),
        );
        let level = self.chance(0.5);
        let mut d = String::new();
        match fill {
            Fill::Empty | Fill::Tint => return,
            Fill::Dots => {
                let (mut row, mut at) = (0, y + step / 2.0);
                while at < y + h {
                    let mut over = x + step / 2.0 + if row % 2 == 0 { 0.0 } else { step / 2.0 };
                    while over < x + w {
                        d += &format!("M{over:.1} {at:.1}h0.1");
                        over += step;
                    }
                    at += step * 0.8;
                    row += 1;
                }
            }
            Fill::Hatch | Fill::Checks => {
                let mut at = -h;
                while at < w {
                    d += &format!("M{:.1} {:.1}l{h:.1} {:.1}", x + at, y + h, -h);
                    if fill == Fill::Checks {
                        d += &format!("M{:.1} {y:.1}l{h:.1} {h:.1}", x + at);
                    }
                    at += step;
                }
            }
            Fill::Stripes => {
                let (mut at, most) = (step, if level { h } else { w });
                while at < most {
                    d += &if level {
                        format!("M{x:.1} {:.1}h{w:.1}", y + at)
                    } else {
                        format!("M{:.1} {y:.1}v{h:.1}", x + at)
                    };
                    at += step;
                }
            }
        }
        let ink = if self.manner.coloured && !self.manner.is_by_hand() {
            "#a35a4c"
        } else {
            self.ink
        };
        let width = if fill == Fill::Dots {
            width * 3.0
        } else {
            width
        };
        self.clipped(points, |hand| {
            hand.put(&format!("<path d=\"{d}\" fill=\"none\" stroke=\"{ink}\" stroke-width=\"{width:.1}\" stroke-linecap=\"round\"/>"));
        });
    }

    pub(super) fn title(&mut self, points: &[Point]) {
        let (x, y, w, h) = bounds(points);
        let text = WORDS[self.luck.random_range(0..WORDS.len())];
        if h > 2.0 * w {
            self.upright(text, (x, y, w, h));
            return;
        }
        match self.manner.title {
            Title::Hand => self.stretched(text, (x, y, w, h), "fill"),
            Title::Heavy if self.manner.is_by_hand() => self.stretched(text, (x, y, w, h), "hand"),
            Title::Heavy => self.stretched(text, (x, y, w, h), "fill"),
            Title::Outline => self.stretched(text, (x, y, w, h), "line"),
            Title::Boxed => {
                self.area(points, self.page_colour());
                self.outline(points);
                self.written("TITLE", (x + w * 0.3, y + h * 0.3, w * 0.4, h * 0.4));
            }
            Title::Script => {
                let count = (w / (h * 0.55)).max(4.0) as usize;
                let mut loops = Vec::new();
                for n in 0..count * 14 {
                    let t = n as f64 / 14.0;
                    let (sin, cos) = (t * TAU).sin_cos();
                    loops.push((
                        x + w * (t + 0.6 - 0.6 * cos) / (count as f64 + 1.2),
                        y + h / 2.0 - h / 2.0 * sin,
                    ));
                }
                self.stroke_of(&loops, false, self.width);
            }
        }
    }

    /// A word that runs up the page.
    fn upright(&mut self, text: &str, (x, y, w, h): (f64, f64, f64, f64)) {
        if self.manner.is_by_hand() {
            for stroke in word(text, (0.0, 0.0, h * 1.04, w)) {
                let stroke: Vec<Point> = stroke.iter().map(|p| (x + p.1, y + h - p.0)).collect();
                self.stroke_of(&stroke, false, self.width * 1.5);
            }
            return;
        }
        self.put(&format!(
            "<g transform=\"translate({x:.1} {:.1}) rotate(-90)\">",
            y + h
        ));
        let how = if self.manner.title == Title::Outline {
            "line"
        } else {
            "fill"
        };
        self.stretched(text, (0.0, 0.0, h, w), how);
        self.put("</g>");
    }

    /// A word stretched over its box, in print or by hand.
    fn stretched(&mut self, text: &str, (x, y, w, h): (f64, f64, f64, f64), how: &str) {
        if how == "hand" || self.manner.title == Title::Hand {
            for stroke in word(text, (x, y, w * 1.04, h)) {
                self.stroke_of(&stroke, false, self.width * 1.5);
            }
            return;
        }
        let (fill, line) = if how == "line" {
            ("none", self.ink)
        } else {
            (self.ink, "none")
        };
        // Capitals of the font are 0.7 of its size high.
        self.put(&format!(
            "<text x=\"{x:.1}\" y=\"{:.1}\" font-size=\"{:.1}\" font-weight=\"700\" font-family=\"Public Sans\" textLength=\"{w:.1}\" lengthAdjust=\"spacingAndGlyphs\" fill=\"{fill}\" stroke=\"{line}\" stroke-width=\"1.4\">{text}</text>",
            y + h, h / 0.7
        ));
    }

    pub(super) fn journal(&mut self, points: &[Point]) {
        let (x, y, w, h) = bounds(points);
        let count = (h / self.luck.random_range(16.0..26.0)).max(2.0) as usize;
        if self.manner.journal == Journal::Boxed {
            self.area(points, self.page_colour());
            self.outline(points);
        }
        let inset = if self.manner.journal == Journal::Boxed {
            0.12
        } else {
            0.0
        };
        let (left, top, wide, high) = (
            x + w * inset,
            y + h * inset,
            w * (1.0 - 2.0 * inset),
            h * (1.0 - 2.0 * inset),
        );
        for n in 0..=count {
            let at = top + high * n as f64 / count as f64;
            let end = left + if n == count { wide * 0.6 } else { wide };
            match self.manner.journal {
                Journal::Lines | Journal::Boxed => self.line((left, at), (end, at)),
                Journal::Dotted => {
                    let ink = self.ink;
                    self.put(&format!("<path d=\"M{left:.1} {at:.1}H{end:.1}\" stroke=\"{ink}\" stroke-width=\"2\" stroke-dasharray=\"2 5\"/>"));
                }
                Journal::Print => {
                    let words = "the sea went out and we walked after it until the kites were small and the lamps were lit on the quay";
                    let size = (high / count as f64 * 0.62).min(13.0);
                    let most = ((end - left) / (size * 0.52)) as usize;
                    let from = self.luck.random_range(0..words.len() / 3);
                    let part: String = words.chars().cycle().skip(from).take(most.max(3)).collect();
                    self.print(&part, (left, at + size * 0.35), size, false);
                }
                Journal::Zigzag => {
                    let steps = ((end - left) / 6.0) as usize;
                    let zigzag: Vec<Point> = (0..=steps)
                        .map(|k| {
                            (
                                left + k as f64 * 6.0,
                                at + if k % 2 == 0 { -2.5 } else { 2.5 },
                            )
                        })
                        .collect();
                    self.stroke_of(&zigzag, false, self.width * 0.8);
                }
            }
        }
    }
}
