//! Layouts as makers draw them: photos in rows, columns and blocks on bands and panels, a title, writing, clusters at the photos' corners.

use crate::manner::Manner;
use metrosk_core::sketch::Sketch;
use rand::Rng;
use rand::rngs::StdRng;
use serde_json::{Value, json};

/// A sketch with what its drawing needs beside it.
#[derive(Debug, Clone)]
pub struct Drawn {
    /// The truth.
    pub sketch: Sketch,
    /// The same, as a document: blocks bottom to top, lengths in inches.
    pub document: Value,
    /// The page's width and height, in inches.
    pub page: (f64, f64),
}

/// A box in inches.
#[derive(Clone, Copy, Debug)]
struct Area {
    x: f64,
    y: f64,
    w: f64,
    h: f64,
}

impl Area {
    fn json(self) -> Value {
        json!({"x": self.x, "y": self.y, "w": self.w, "h": self.h})
    }

    fn grown(self, by: f64) -> Area {
        Area {
            x: self.x - by,
            y: self.y - by,
            w: self.w + 2.0 * by,
            h: self.h + 2.0 * by,
        }
    }
}

/// Makers' rulers have eighths.
fn eighth(v: f64) -> f64 {
    (v * 8.0).round() / 8.0
}

struct Maker<'a> {
    luck: &'a mut StdRng,
    page: (f64, f64),
    pages: u8,
    blocks: Vec<Value>,
    photos: Vec<(String, Area)>,
    /// What later blocks must keep clear of.
    taken: Vec<Area>,
}

/// A layout of its own for a manner's page.
pub fn layout(luck: &mut StdRng, manner: &Manner) -> Drawn {
    let page = [(12.0, 12.0), (12.0, 12.0), (8.5, 11.0)][luck.random_range(0..3)];
    let mut maker = Maker {
        luck,
        page,
        pages: manner.pages,
        blocks: Vec::new(),
        photos: Vec::new(),
        taken: Vec::new(),
    };
    for side in 0..manner.pages {
        maker.one_page(f64::from(side) * page.0);
    }
    let document = json!({
        "format": "metrosk-sketch/1", "unit": "in", "name": "Drawn",
        "canvas": {"page": {"w": page.0, "h": page.1}, "pages": manner.pages},
        "blocks": maker.blocks,
    });
    let sketch = Sketch::from_json(&document).expect("the machine draws sketches");
    Drawn {
        sketch,
        document,
        page,
    }
}

impl Maker<'_> {
    fn one_page(&mut self, left: f64) {
        let first = self.photos.len();
        self.grounds(left);
        if self.luck.random_bool(0.3) {
            self.grounds(left);
        }
        match self.luck.random_range(0..5) {
            0 => self.row(left),
            1 => self.column(left),
            2 => self.focal(left),
            3 => self.grid(left),
            _ => self.rounds(left),
        }
        self.words(left);
        self.clusters(left, first);
        self.accents(left);
    }

    fn id(&self, letter: char) -> String {
        let start = format!("\"{letter}");
        let count = self
            .blocks
            .iter()
            .filter(|b| b["id"].to_string().starts_with(&start));
        format!("{letter}{}", count.count() + 1)
    }

    fn put(&mut self, letter: char, kind: &str, area: Area, more: &Value) -> String {
        let id = self.id(letter);
        let mut block = json!({"id": id, "kind": kind, "box": area.json()});
        if let (Some(fields), Some(more)) = (block.as_object_mut(), more.as_object()) {
            fields.extend(more.clone());
        }
        self.end_at_fold(&mut block, area);
        self.blocks.push(block);
        id
    }

    /// What ends at the fold of a spread runs off no edge there.
    fn end_at_fold(&self, block: &mut Value, area: Area) {
        let wide = self.page.0 * f64::from(self.pages);
        let is_off = |edge: &str| match edge {
            "left" => area.x <= 0.0,
            "right" => area.x + area.w >= wide,
            _ => true,
        };
        if let Some(edges) = block.get_mut("bleed").and_then(Value::as_array_mut) {
            edges.retain(|e| e.as_str().is_some_and(is_off));
            if edges.is_empty() {
                block.as_object_mut().map(|b| b.shift_remove("bleed"));
            }
        }
    }

    /// Bands, columns and corners that lie under all else, off the page's edges.
    fn grounds(&mut self, left: f64) {
        let (w, h) = self.page;
        let band = |luck: &mut StdRng, of: f64| {
            let size = eighth(of * luck.random_range(0.06..0.3));
            (
                eighth(luck.random_range(of * 0.1..of - size - of * 0.08)),
                size,
            )
        };
        match self.luck.random_range(0..5) {
            0 => {
                let (y, size) = band(self.luck, h);
                let kind = if size < 2.0 { "strip" } else { "paper" };
                let area = Area {
                    x: left,
                    y,
                    w,
                    h: size,
                };
                self.put('g', kind, area, &json!({"bleed": ["left", "right"]}));
                if self.luck.random_bool(0.5) && y + size + 0.6 < h {
                    let area = Area {
                        x: left,
                        y: y + size,
                        w,
                        h: 0.5,
                    };
                    self.put('g', "strip", area, &json!({"bleed": ["left", "right"]}));
                }
            }
            1 => {
                let (x, size) = band(self.luck, w);
                let kind = if size < 2.0 { "strip" } else { "paper" };
                let area = Area {
                    x: left + x,
                    y: 0.0,
                    w: size,
                    h,
                };
                self.put('g', kind, area, &json!({"bleed": ["top", "bottom"]}));
            }
            2 => {
                let size = eighth(h * self.luck.random_range(0.2..0.45));
                let at_top = self.luck.random_bool(0.5);
                let y = if at_top { 0.0 } else { h - size };
                let edge = if at_top { "top" } else { "bottom" };
                let area = Area {
                    x: left,
                    y,
                    w,
                    h: size,
                };
                self.put(
                    'g',
                    "paper",
                    area,
                    &json!({"bleed": ["left", "right", edge]}),
                );
            }
            3 => {
                let size = eighth(w * self.luck.random_range(0.25..0.45));
                let corner = ["top-left", "top-right", "bottom-left", "bottom-right"]
                    [self.luck.random_range(0..4)];
                let x = if corner.ends_with("left") {
                    left
                } else {
                    left + w - size
                };
                let y = if corner.starts_with("top") {
                    0.0
                } else {
                    h - size
                };
                let area = Area {
                    x,
                    y,
                    w: size,
                    h: size,
                };
                let edges: Vec<&str> = corner.split('-').collect();
                self.put(
                    'g',
                    "paper",
                    area,
                    &json!({"shape": {"type": "triangle", "corner": corner}, "bleed": edges}),
                );
            }
            _ => {}
        }
    }

    /// A photo, with a mat under it now and then.
    fn photo(&mut self, area: Area, matted: f64, turn: f64, round: bool) {
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
    fn turn(&mut self) -> f64 {
        if self.luck.random_bool(0.15) {
            let by = f64::from(self.luck.random_range(4..=10_i32));
            if self.luck.random_bool(0.5) { by } else { -by }
        } else {
            0.0
        }
    }

    fn row(&mut self, left: f64) {
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

    fn column(&mut self, left: f64) {
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

    fn focal(&mut self, left: f64) {
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

    fn grid(&mut self, left: f64) {
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

    fn rounds(&mut self, left: f64) {
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

    /// The first of some tries that keeps clear of what lies there.
    fn free(&mut self, left: f64, w: f64, h: f64) -> Option<Area> {
        let (page_w, page_h) = self.page;
        if w > page_w - 1.2 || h > page_h - 1.2 {
            return None;
        }
        for _ in 0..60 {
            let area = Area {
                x: left + eighth(self.luck.random_range(0.6..page_w - w - 0.5)),
                y: eighth(self.luck.random_range(0.6..page_h - h - 0.5)),
                w,
                h,
            };
            let meets = |o: &Area| {
                area.x < o.x + o.w
                    && o.x < area.x + area.w
                    && area.y < o.y + o.h
                    && o.y < area.y + area.h
            };
            if !self.taken.iter().any(meets) {
                self.taken.push(area.grown(0.2));
                return Some(area);
            }
        }
        None
    }

    fn words(&mut self, left: f64) {
        let (w, h) = (
            eighth(self.luck.random_range(3.0..6.0)),
            eighth(self.luck.random_range(0.6..1.1)),
        );
        let (w, h) = if self.luck.random_bool(0.15) {
            (h, w)
        } else {
            (w, h)
        };
        if let Some(area) = self.free(left, w, h) {
            self.put('t', "title", area, &json!({}));
        }
        let (w, h) = (
            eighth(self.luck.random_range(2.2..4.2)),
            eighth(self.luck.random_range(1.0..2.2)),
        );
        if let Some(area) = self.free(left, w, h) {
            self.put('j', "journal", area, &json!({}));
        }
    }

    fn clusters(&mut self, left: f64, first: usize) {
        let photos = self.photos[first..].to_vec();
        if self.luck.random_bool(0.35) {
            let size = eighth(self.luck.random_range(0.6..1.25));
            if let Some(at) = self.free(left, size, size) {
                self.put('c', "cluster", at, &json!({"size": "small"}));
            }
        }
        for (id, area) in photos {
            if !self.luck.random_bool(0.45) {
                continue;
            }
            let size = eighth(self.luck.random_range(0.8..1.5));
            let (right, low) = (self.luck.random_bool(0.5), self.luck.random_bool(0.5));
            let x = if right { area.x + area.w } else { area.x } - size / 2.0;
            let y = if low { area.y + area.h } else { area.y } - size / 2.0;
            let at = Area {
                x,
                y,
                w: size,
                h: size,
            };
            self.put(
                'c',
                "cluster",
                at,
                &json!({"host": id, "size": if size > 1.1 { "medium" } else { "small" }}),
            );
        }
    }

    /// Tags, flags, labels, tickets and small rounds.
    fn accents(&mut self, left: f64) {
        for _ in 0..self.luck.random_range(0..3) {
            let (w, h) = (
                eighth(self.luck.random_range(1.0..2.25)),
                eighth(self.luck.random_range(0.75..1.25)),
            );
            let Some(area) = self.free(left, w, h) else {
                return;
            };
            let outline = match self.luck.random_range(0..5) {
                0 => json!([[0.0, 0.0], [1.0, 0.0], [0.85, 0.5], [1.0, 1.0], [0.0, 1.0]]),
                1 => json!([
                    [0.15, 0.0],
                    [1.0, 0.0],
                    [1.0, 1.0],
                    [0.15, 1.0],
                    [0.0, 0.65],
                    [0.0, 0.35]
                ]),
                2 => json!([[0.5, 0.0], [1.0, 0.4], [0.5, 1.0], [0.0, 0.4]]),
                3 => {
                    let across = area.h;
                    let round = Area {
                        w: across,
                        h: across,
                        ..area
                    };
                    self.put('x', "accent", round, &json!({"shape": {"type": "ellipse"}}));
                    continue;
                }
                _ => json!([
                    [0.06, 0.0],
                    [0.94, 0.0],
                    [1.0, 0.1],
                    [1.0, 0.9],
                    [0.94, 1.0],
                    [0.06, 1.0],
                    [0.0, 0.9],
                    [0.0, 0.1]
                ]),
            };
            let mut tag = json!({"shape": {"type": "polygon", "points": outline}});
            let turn = self.turn();
            if turn != 0.0 {
                tag["turn"] = turn.into();
            }
            self.put('x', "accent", area, &tag);
        }
    }
}
