//! Photos in rows, columns, grids and rounds, or one large one with others beside it.

use super::{Area, Maker, eighth};
use rand::Rng;
use serde_json::json;

impl Maker<'_> {
    /// A photo, with a mat under it now and then.
    pub(super) fn photo(&mut self, area: Area, matted: f64, turn: f64, round: bool) {
        let id = self.id('p');
        let mut more = json!({});
        if turn != 0.0 {
            more["turn"] = turn.into();
        }
        if round {
            more["shape"] = json!({"type": "ellipse"});
        }
        if matted > 0.0 {
            let mut mat = more.clone();
            mat["under"] = id.clone().into();
            if self.luck.random_bool(0.2) {
                self.put('m', "mat", area.grown(matted * 2.0), &mat);
            }
            self.put('m', "mat", area.grown(matted), &mat);
        }
        self.put('p', "photo", area, &more);
        self.photos.push((id, area));
        self.taken.push(area.grown(matted + 0.25));
    }

    fn border(&mut self) -> f64 {
        if self.luck.random_bool(0.5) {
            [0.125, 0.1875, 0.25][self.luck.random_range(0..3)]
        } else {
            0.0
        }
    }

    /// Degrees by which a photo lies askew, now and then.
    pub(super) fn turn(&mut self) -> f64 {
        if self.luck.random_bool(0.15) {
            let by = f64::from(self.luck.random_range(4..=10_i32));
            if self.luck.random_bool(0.5) { by } else { -by }
        } else {
            0.0
        }
    }

    pub(super) fn row(&mut self, left: f64) {
        let (w, h) = self.page;
        let count = self.luck.random_range(2..=4);
        let gap = eighth(self.luck.random_range(0.25..0.8));
        let each = eighth((w - 1.5 - gap * f64::from(count - 1)) / f64::from(count));
        let high = eighth(each * [1.0, 1.33, 0.75][self.luck.random_range(0..3)]).min(h * 0.5);
        let y = eighth(self.luck.random_range(1.0..h - high - 3.0));
        let border = self.border();
        for n in 0..count {
            let x = left + 0.75 + f64::from(n) * (each + gap);
            self.photo(
                Area {
                    x,
                    y,
                    w: each,
                    h: high,
                },
                border.min(gap / 3.0),
                0.0,
                false,
            );
        }
    }

    pub(super) fn column(&mut self, left: f64) {
        let (w, h) = self.page;
        let count = self.luck.random_range(2..=3);
        let gap = eighth(self.luck.random_range(0.3..0.7));
        let each = eighth((h - 1.5 - gap * f64::from(count - 1)) / f64::from(count));
        let wide = eighth((each * 1.1).min(w * 0.4));
        let x = left
            + if self.luck.random_bool(0.5) {
                0.875
            } else {
                eighth(w - wide - 0.875)
            };
        let under = Area {
            x: x - 0.25,
            y: 0.0,
            w: wide + 0.5,
            h,
        };
        if self.luck.random_bool(0.4) {
            self.put('g', "paper", under, &json!({"bleed": ["top", "bottom"]}));
        }
        let border = self.border();
        for n in 0..count {
            let y = 0.75 + f64::from(n) * (each + gap);
            self.photo(
                Area {
                    x,
                    y,
                    w: wide,
                    h: each,
                },
                border.min(0.2),
                0.0,
                false,
            );
        }
    }

    pub(super) fn focal(&mut self, left: f64) {
        let (w, h) = self.page;
        let wide = eighth(w * self.luck.random_range(0.36..0.5));
        let high = eighth((wide * [0.75, 1.0, 1.3][self.luck.random_range(0..3)]).min(h * 0.52));
        let x = left + eighth(self.luck.random_range(0.9..w * 0.4));
        let y = eighth(self.luck.random_range(0.9..h * 0.35));
        let (border, turn) = (self.border(), self.turn());
        let area = Area {
            x,
            y,
            w: wide,
            h: high,
        };
        if self.luck.random_bool(0.5) {
            let by = eighth(self.luck.random_range(0.4..0.7)).min(x - left - 0.25);
            let more = if turn == 0.0 {
                json!({})
            } else {
                json!({"turn": turn})
            };
            self.put('a', "paper", area.grown(by.max(0.3)), &more);
        }
        self.photo(area, border, turn, false);
        let beside = x + wide + 0.9;
        let room = left + w - 0.6 - beside;
        if room > 1.6 {
            let (each, border) = (eighth(room.min(high / 2.0 - 0.2)), self.border().min(0.15));
            for n in 0..2 {
                let y = y + f64::from(n) * (each + 0.375);
                self.photo(
                    Area {
                        x: eighth(beside),
                        y,
                        w: each,
                        h: each,
                    },
                    border,
                    0.0,
                    false,
                );
            }
        }
    }

    pub(super) fn grid(&mut self, left: f64) {
        let (w, h) = self.page;
        let (cols, rows) = [(2, 2), (3, 2), (2, 3)][self.luck.random_range(0..3)];
        let gap = [0.125, 0.25, 0.375][self.luck.random_range(0..3)];
        let each = eighth(((w - 2.0) / f64::from(cols)).min((h - 4.0) / f64::from(rows)) - gap);
        let x = left
            + eighth(
                self.luck
                    .random_range(0.8..(w - f64::from(cols) * (each + gap)).max(0.9)),
            );
        let y = eighth(
            self.luck
                .random_range(0.8..(h - f64::from(rows) * (each + gap) - 2.2).max(0.9)),
        );
        for row in 0..rows {
            for col in 0..cols {
                let (x, y) = (
                    x + f64::from(col) * (each + gap),
                    y + f64::from(row) * (each + gap),
                );
                self.photo(
                    Area {
                        x,
                        y,
                        w: each,
                        h: each,
                    },
                    0.0,
                    0.0,
                    false,
                );
            }
        }
    }

    pub(super) fn rounds(&mut self, left: f64) {
        let (w, h) = self.page;
        let (large, small) = (
            eighth(w * self.luck.random_range(0.3..0.4)),
            eighth(w * self.luck.random_range(0.22..0.3)),
        );
        let y = eighth(self.luck.random_range(1.0..h * 0.35));
        let border = self.border();
        self.photo(
            Area {
                x: left + 1.0,
                y,
                w: large,
                h: large,
            },
            border,
            0.0,
            true,
        );
        let x = left + 1.0 + large + 0.9;
        if x + small < left + w - 0.5 {
            self.photo(
                Area {
                    x,
                    y: y + (large - small) / 2.0,
                    w: small,
                    h: small,
                },
                0.0,
                0.0,
                true,
            );
        }
    }
}
