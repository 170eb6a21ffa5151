//! What the drawing lies on: table or screen, the page's own paper, its edge, words round it.

use super::{Hand, rect};
use crate::manner::{Camera, Ground, Page, TONES};
use rand::Rng;

/// Cream, kraft, and what lies between.
const TONED: [&str; TONES as usize] = ["#f4ecdc", "#efe3cc", "#d3b48c", "#e4ddd3"];

impl Hand<'_> {
    /// What lies round the page.
    pub(super) fn ground(&mut self, (w, h): (f64, f64)) {
        let round = match self.manner.page {
            Page::Tint => ["#dfe4ea", "#e9e2d8"][self.luck.random_range(0..2)],
            Page::Shadow => "#eef0f1",
            _ => self.page_colour(),
        };
        self.area(&rect(0.0, 0.0, w, h), round);
    }

    /// The colour of the page itself.
    pub(super) fn page_colour(&self) -> &'static str {
        match self.manner.ground {
            Ground::White | Ground::Squared => "#fdfdfc",
            Ground::Toned => TONED[usize::from(self.manner.tone)],
            Ground::Dotted => "#fbfbf8",
        }
    }

    pub(super) fn page_ground(&mut self, (x, y, w, h): (f64, f64, f64, f64)) {
        if self.manner.page == Page::Shadow {
            for n in 0..6 {
                let by = f64::from(n) * 2.0;
                let shade = format!(
                    "<rect x=\"{:.1}\" y=\"{:.1}\" width=\"{w:.1}\" height=\"{h:.1}\" fill=\"#000000\" fill-opacity=\"0.045\"/>",
                    x + by,
                    y + by
                );
                self.put(&shade);
            }
        }
        self.area(&rect(x, y, w, h), self.page_colour());
        let step = match self.manner.ground {
            Ground::Squared => 17.0,
            Ground::Dotted => 20.0,
            Ground::White | Ground::Toned => return,
        };
        let dotted = self.manner.ground == Ground::Dotted;
        let lines = |w: f64, h: f64| {
            let mut text = String::new();
            let mut at = step;
            while at < w {
                text += &format!("M{:.1} {y:.1}v{h:.1}", x + at);
                at += step;
            }
            text
        };
        let (down, mut across) = (lines(w, h), String::new());
        let mut at = step;
        while at < h {
            across += &format!("M{x:.1} {:.1}h{w:.1}", y + at);
            at += step;
        }
        let dashes = if dotted {
            format!(
                " stroke-dasharray=\"1.6 {}\" stroke-width=\"1.6\"",
                step - 1.6
            )
        } else {
            String::new()
        };
        let grid = if dotted { across } else { down + &across };
        self.put(&format!(
            "<path d=\"{grid}\" fill=\"none\" stroke=\"#cfd8e4\"{dashes}/>"
        ));
    }

    pub(super) fn page_outline(&mut self, (x, y, w, h): (f64, f64, f64, f64)) {
        let corners = rect(x, y, w, h);
        match self.manner.page {
            Page::Thin => self.stroke_of(&corners, true, self.width),
            Page::Thick => self.stroke_of(&corners, true, self.width * 2.6),
            Page::Shadow | Page::Tint | Page::Edge => {}
        }
    }

    /// Words above and below, as printed pages have them.
    pub(super) fn caption(&mut self, (x, y, w): (f64, f64, f64)) {
        if self.manner.camera != Camera::Captioned {
            return;
        }
        let words = [
            "Sketch 31 · Winter flats",
            "page plan no. 8, one page, four pictures",
            "Kite tail sketch for the second week",
        ];
        let word = words[self.luck.random_range(0..words.len())];
        self.print(word, (x + w * 0.2, y + 26.0), 24.0, false);
    }

    /// Printed words.
    pub(super) fn print(&mut self, words: &str, (x, y): (f64, f64), size: f64, bold: bool) {
        let weight = if bold { 700 } else { 400 };
        self.put(&format!(
            "<text x=\"{x:.1}\" y=\"{y:.1}\" font-size=\"{size:.1}\" font-weight=\"{weight}\" font-family=\"Public Sans\" fill=\"{}\">{words}</text>",
            self.ink
        ));
    }
}
