//! Blocks as read, written as a sketch document.

use crate::blocks::{Form, Read};
use crate::sheet::{RIM, SIDE, Sheet};
use crate::writing::Extent;
use metrosk_core::document::number;
use serde_json::{Map, Value, json};

/// Lengths to the thousandth of the unit: finer than any picture tells.
fn rounded(v: f64) -> Value {
    number((v * 1000.0).round() / 1000.0)
}

/// Turns pixels into the sketch's unit.
struct Scale {
    per_unit: f64,
    w: f64,
    h: f64,
}

impl Scale {
    fn long(&self, px: f64) -> f64 {
        px / self.per_unit
    }

    fn along(&self, px: f64) -> f64 {
        (px - RIM as f64) / self.per_unit
    }

    fn boxed(&self, e: &Extent) -> Value {
        let (x, y) = (self.along(e.x0), self.along(e.y0));
        json!({"x": rounded(x), "y": rounded(y), "w": rounded(self.along(e.x1) - x), "h": rounded(self.along(e.y1) - y)})
    }

    /// What reaches over the canvas is cut off at it.
    fn clipped(&self, e: &Extent) -> Extent {
        let r = RIM as f64;
        Extent {
            x0: e.x0.max(r),
            y0: e.y0.max(r),
            x1: e.x1.min(r + self.w),
            y1: e.y1.min(r + self.h),
        }
    }
}

/// The sketch document of a sheet's blocks.
pub(crate) fn sketch(
    sheet: &Sheet,
    blocks: &[Read],
    page: (f64, f64),
    unit: &str,
    name: &str,
) -> Value {
    let scale = Scale {
        per_unit: SIDE / page.0.max(page.1),
        w: sheet.w(),
        h: sheet.page_h,
    };
    let ids = ids(blocks);
    let list: Vec<Value> = blocks
        .iter()
        .enumerate()
        .map(|(i, b)| block(b, i, &ids, &scale))
        .collect();
    json!({
        "format": "metrosk-sketch/1", "unit": unit, "name": name, "origin": {"how": "challenge"},
        "canvas": {"page": {"w": number(page.0), "h": number(page.1)}, "pages": sheet.pages}, "blocks": list,
    })
}

/// A letter of the kind and a running number, as makers number a sketch.
fn ids(blocks: &[Read]) -> Vec<String> {
    let mut counts: std::collections::HashMap<char, usize> = std::collections::HashMap::new();
    blocks
        .iter()
        .map(|b| {
            let letter = match b.kind {
                "paper" => 'a',
                "accent" => 'e',
                "ring" => 'r',
                other => other.chars().next().unwrap_or('b'),
            };
            let n = counts.entry(letter).or_insert(0);
            *n += 1;
            format!("{letter}{n}")
        })
        .collect()
}

fn block(read: &Read, i: usize, ids: &[String], scale: &Scale) -> Value {
    let mut map = Map::new();
    map.insert("id".into(), json!(ids[i]));
    map.insert("kind".into(), json!(read.kind));
    let extent = read.form.extent();
    let shown = scale.clipped(&extent);
    match &read.form {
        Form::Panel(p) if p.turn.abs() >= 0.8 => {
            let e = Extent {
                x0: p.middle[0] - p.w / 2.0,
                y0: p.middle[1] - p.h / 2.0,
                x1: p.middle[0] + p.w / 2.0,
                y1: p.middle[1] + p.h / 2.0,
            };
            map.insert("box".into(), scale.boxed(&e));
            map.insert("turn".into(), number((p.turn * 10.0).round() / 10.0));
        }
        Form::Panel(p) => {
            let e = Extent {
                x0: p.middle[0] - p.w / 2.0,
                y0: p.middle[1] - p.h / 2.0,
                x1: p.middle[0] + p.w / 2.0,
                y1: p.middle[1] + p.h / 2.0,
            };
            map.insert("box".into(), scale.boxed(&scale.clipped(&e)));
        }
        Form::Round(_) => {
            map.insert("box".into(), scale.boxed(&extent));
            map.insert("shape".into(), json!({"type": "ellipse"}));
        }
        Form::Wedge(w) => {
            map.insert("box".into(), scale.boxed(&shown));
            let corner = format!(
                "{}-{}",
                if w.bottom { "bottom" } else { "top" },
                if w.right { "right" } else { "left" }
            );
            map.insert(
                "shape".into(),
                json!({"type": "triangle", "corner": corner}),
            );
        }
        Form::Tag(points) => {
            map.insert("box".into(), scale.boxed(&extent));
            let share = |p: &[f64; 2]| {
                json!([
                    rounded(((p[0] - extent.x0) / extent.w()).clamp(0.0, 1.0)),
                    rounded(((p[1] - extent.y0) / extent.h()).clamp(0.0, 1.0))
                ])
            };
            map.insert(
                "shape".into(),
                json!({"type": "polygon", "points": points.iter().map(share).collect::<Vec<_>>()}),
            );
        }
        Form::Ink(_) => {
            map.insert("box".into(), scale.boxed(&shown));
        }
        Form::Lattice(l) => {
            map.insert("box".into(), scale.boxed(&shown));
            map.insert("grid".into(), json!({"cols": l.cols, "rows": l.rows, "gap": rounded(scale.long(l.gap)), "stagger": 0}));
        }
        Form::Ring(r) => {
            map.insert("box".into(), scale.boxed(&extent));
            map.insert("ring".into(), json!({"count": r.count, "unit": rounded(scale.long(r.unit)), "unit_shape": "circle"}));
        }
    }
    let bleed = bleed(read, &extent, scale);
    if !bleed.is_empty() {
        map.insert("bleed".into(), json!(bleed));
    }
    if let Some(u) = read.under {
        map.insert("under".into(), json!(ids[u]));
    }
    if let Some(h) = read.host {
        map.insert("host".into(), json!(ids[h]));
    }
    if read.kind == "cluster" {
        let size = extent.w().max(extent.h());
        map.insert(
            "size".into(),
            json!(if size < 125.0 {
                "small"
            } else if size < 230.0 {
                "medium"
            } else {
                "large"
            }),
        );
    }
    map.insert(
        "sure".into(),
        number((read.sure.clamp(0.0, 1.0) * 100.0).round() / 100.0),
    );
    Value::Object(map)
}

/// The canvas edges that a block reaches.
fn bleed(read: &Read, e: &Extent, scale: &Scale) -> Vec<&'static str> {
    if matches!(read.form, Form::Ink(_) | Form::Tag(_)) {
        return Vec::new();
    }
    let r = RIM as f64;
    let near = 4.0;
    let mut out = Vec::new();
    for (name, on) in [
        ("left", e.x0 < r + near),
        ("right", e.x1 > r + scale.w - near),
        ("top", e.y0 < r + near),
        ("bottom", e.y1 > r + scale.h - near),
    ] {
        if on {
            out.push(name);
        }
    }
    out
}
