//! The paper club's kits: patterned papers with both sides, cardstock, a pad, cards, vellum, scraps, letters, pieces and tools.

mod letter_sets;
mod patterns;
mod sheets;

pub use letter_sets::hands;

use anyhow::Context;
use image::RgbImage;
use resvg::tiny_skia::{Pixmap, Transform};
use resvg::usvg::{Options, Tree};
use serde_json::{Value, json};

/// Pixels of a tile's picture, a side: as the demo shows it, and no fewer than pictures may have.
const PIXELS: u32 = 480;
const FEWEST_PIXELS: u32 = 128;

/// What the club's pieces are made of, what they look like, and how thick they are in inches.
const MADE_OF: [(&str, &str, &str, f64); 12] = [
    ("Doilies", "paper", "doily", 0.01),
    ("Leaves", "paper", "leaf", 0.01),
    ("Tags", "card", "tag", 0.02),
    ("Wooden kites", "wood", "kite", 0.09375),
    ("Sledges", "wood", "sledge", 0.09375),
    ("Stars", "metal", "star", 0.0625),
    ("Buttons", "plastic", "button", 0.125),
    ("Film kites", "acetate", "kite", 0.01),
    ("Pennants", "card", "flag", 0.02),
    ("Hold the line", "card", "phrase", 0.02),
    ("Slack water", "vellum", "phrase", 0.01),
    ("Red dots", "plastic", "round", 0.0625),
];

/// Which way a pattern runs, as items write it.
type Direction = &'static str;

/// One side of a paper.
#[derive(Debug, Clone, Copy)]
pub struct PaperSide {
    /// What it is called.
    pub name: &'static str,
    /// How large a motif is, in inches; 0 where it is plain.
    pub scale: f64,
    /// How much goes on in it.
    pub busy: f64,
    direction: Direction,
    draw: fn() -> (f64, String),
}

impl PaperSide {
    /// How much of the side the tile shows, in inches.
    #[must_use]
    pub fn tile(&self) -> f64 {
        (self.draw)().0 / 100.0
    }

    /// The tile, at a share of its pixels a side.
    ///
    /// # Errors
    /// When it can't be drawn, which would be a fault of the code.
    pub fn render(&self, share: f64) -> anyhow::Result<RgbImage> {
        let pixels = ((f64::from(PIXELS) * share).round() as u32).clamp(FEWEST_PIXELS, PIXELS);
        let (side, svg) = (self.draw)();
        let tree = Tree::from_str(&svg, &Options::default())?;
        let mut pixmap = Pixmap::new(pixels, pixels).context("a tile has pixels")?;
        let scale = pixels as f32 / side as f32;
        resvg::render(
            &tree,
            Transform::from_scale(scale, scale),
            &mut pixmap.as_mut(),
        );
        let rgb = pixmap
            .pixels()
            .iter()
            .flat_map(|p| [p.red(), p.green(), p.blue()])
            .collect();
        RgbImage::from_raw(pixels, pixels, rgb).context("a tile has three colours a pixel")
    }
}

/// Something in the stash.
#[derive(Debug, Clone, Copy)]
pub struct StashThing {
    /// What it is, as items write it.
    pub kind: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// How many there are.
    pub count: u32,
    /// Its width and height in inches; 0 where it has none.
    pub size: (f64, f64),
    /// Its sides, up to two.
    pub sides: &'static [PaperSide],
    /// The kit it came in.
    pub kit: Option<&'static str>,
    /// The maker's strip along the bottom, in inches; 0 for none.
    pub strip: f64,
    /// What has been cut out of it: left, top, width, height in inches.
    pub bites: &'static [[f64; 4]],
    /// Where it lies.
    pub kept: Option<&'static str>,
    /// Colours of what has no picture.
    pub colours: &'static [&'static str],
    /// Of a trimmer: reach and finest step in inches; of a punch or die: the size that it cuts.
    pub tool: Option<(f64, f64)>,
}

impl StashThing {
    /// Its place in [`things`] makes its id, the same at every start: plans name papers by it.
    #[must_use]
    pub fn id(n: usize) -> String {
        format!("00000000-0000-4000-a000-{n:012}")
    }

    /// The id of the picture of one of its sides.
    #[must_use]
    pub fn picture(n: usize, side: usize) -> String {
        format!("00000000-0000-4000-b00{side}-{n:012}")
    }

    /// It as an item; `colours` are those of its sides, each with its share.
    #[must_use]
    pub fn item(&self, n: usize, colours: &[Vec<(String, f64)>]) -> Value {
        let mut item =
            json!({"unit": "in", "kind": self.kind, "name": self.name, "count": self.count});
        if self.size.0 > 0.0 {
            item["size"] = json!({"w": self.size.0, "h": self.size.1});
        }
        for (at, field) in ["a", "b"].into_iter().enumerate() {
            let Some(side) = self.sides.get(at) else {
                continue;
            };
            let own = colours.get(at).map_or(&[][..], Vec::as_slice);
            let swatches: Vec<Value> = own
                .iter()
                .map(|(colour, share)| json!({"colour": colour, "share": share}))
                .collect();
            let mut written = json!({
                "name": side.name, "colours": swatches, "busy": side.busy, "direction": side.direction,
                "picture": StashThing::picture(n, at), "tile": {"w": side.tile(), "h": side.tile()},
            });
            if side.scale > 0.0 {
                written["scale"] = json!(side.scale);
            }
            item[field] = written;
        }
        if self.sides.is_empty() {
            let share = 1.0 / self.colours.len().max(1) as f64;
            let swatches: Vec<Value> = self
                .colours
                .iter()
                .map(|c| json!({"colour": c, "share": share}))
                .collect();
            item["a"] = json!({"colours": swatches});
        }
        for (field, text) in [("kit", self.kit), ("kept", self.kept)] {
            if let Some(text) = text {
                item[field] = json!(text);
            }
        }
        let made = MADE_OF.iter().find(|(name, ..)| *name == self.name);
        if let Some((_, material, form, thickness)) = made {
            item["material"] = json!(material);
            item["form"] = json!(form);
            item["thickness"] = json!(thickness);
        }
        if let Some(letters) = letter_sets::letters_of(self.name) {
            item["letters"] = letters;
        }
        if self.strip > 0.0 {
            item["strip"] = json!({"edge": "bottom", "width": self.strip});
        }
        if !self.bites.is_empty() {
            let bite = |[x, y, w, h]: &[f64; 4]| json!({"x": x, "y": y, "w": w, "h": h});
            item["bites"] = self.bites.iter().map(bite).collect();
        }
        if let Some((a, b)) = self.tool {
            if self.name == "Trimmer" {
                item["reach"] = json!(a);
                item["finest"] = json!(b);
            } else {
                item["cuts"] = json!([{"w": a, "h": b}]);
            }
        }
        item
    }
}

/// All that lies in the club's stash.
#[must_use]
pub fn things() -> &'static [StashThing] {
    &sheets::THINGS
}

/// A paper of the stash as a plan names it.
///
/// # Panics
/// When nothing is called so, which would be a fault of the code.
#[must_use]
pub fn paper(name: &str, side: &str) -> Value {
    let n = sheets::THINGS
        .iter()
        .position(|t| t.name == name)
        .expect("the demo's plans name papers of the demo");
    json!({"item": StashThing::id(n), "side": side})
}

#[cfg(test)]
mod tests {
    use super::*;
    use metrosk_core::stash::Item;

    #[test]
    fn every_thing_is_an_item_and_no_two_have_one_name() {
        let mut names: Vec<&str> = things().iter().map(|t| t.name).collect();
        for (n, thing) in things().iter().enumerate() {
            Item::from_json(&thing.item(n, &[])).unwrap_or_else(|e| panic!("{}: {e}", thing.name));
        }
        names.sort_unstable();
        names.dedup();
        assert_eq!(names.len(), things().len());
        let patterned = things().iter().filter(|t| t.kind == "sheet");
        assert!(patterned.clone().count() >= 24);
        assert!(patterned.clone().all(|t| t.sides.len() == 2));
    }

    #[test]
    fn tiles_meet_at_their_edges() {
        for thing in things() {
            for side in thing.sides {
                let tile = side.render(1.0).expect("it is drawn");
                // Along a seam neighbours differ no more than neighbours within do.
                let far = |a: &image::Rgb<u8>, b: &image::Rgb<u8>| {
                    (0..3).map(|c| u32::from(a[c].abs_diff(b[c]))).sum::<u32>()
                };
                let last = PIXELS - 1;
                let across = |x: u32, to: u32| {
                    (0..PIXELS)
                        .map(|y| far(tile.get_pixel(x, y), tile.get_pixel(to, y)))
                        .sum::<u32>()
                };
                let within = (0..last).map(|x| across(x, x + 1)).max().unwrap_or(0);
                assert!(
                    across(last, 0) <= within + PIXELS * 24,
                    "{}: {} {}",
                    thing.name,
                    across(last, 0),
                    within
                );
            }
        }
    }
}
