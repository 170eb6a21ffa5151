//! Layouts as makers draw them: photos in rows, columns and blocks on bands and panels, a title, writing, clusters at the photos' corners.

mod photos;
mod trimmings;

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
}
