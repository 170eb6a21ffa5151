//! The festival's photos: drawn as SVG by code, rendered at the sizes that cameras have.

mod figures;
mod scenes;

use anyhow::Context;
use image::RgbImage;
use resvg::tiny_skia::{Pixmap, Transform};
use resvg::usvg::{Options, Tree};
use serde_json::json;

/// An area of a photo, in shares of its width and height: left, top, width, height.
pub type Area = [f64; 4];

/// No photo is rendered with a shorter side: smaller pictures are not taken in.
const SHORTEST: f64 = 128.0;

/// A photo of the festival.
#[derive(Debug, Clone, Copy)]
pub struct Photo {
    /// What it is called.
    pub name: &'static str,
    /// Its pixels across and down.
    pub pixels: (u32, u32),
    /// As a print: its width and height, in inches.
    pub print: (f64, f64),
    /// It is a file that has not been printed yet.
    pub is_file: bool,
    /// What no crop may cut.
    pub keep: &'static [Area],
    /// What an embellishment should hide.
    pub cover: &'static [Area],
    scene: fn() -> String,
}

impl Photo {
    /// Its id, the same at every start: plans name their prints' pictures by it.
    #[must_use]
    pub fn id(&self) -> String {
        let n = PHOTOS
            .iter()
            .position(|p| p.name == self.name)
            .unwrap_or_default();
        format!("00000000-0000-4000-8000-{n:012}")
    }

    /// Its picture, at a share of its pixels across and down, but no smaller than pictures may be.
    ///
    /// # Errors
    /// When it can't be drawn, which would be a fault of the code.
    pub fn render(&self, scale: f64) -> anyhow::Result<RgbImage> {
        let tree = Tree::from_str(&(self.scene)(), &Options::default())?;
        let shorter = f64::from(self.pixels.0.min(self.pixels.1));
        let scale = scale.max(SHORTEST / shorter);
        let side = |pixels: u32| (f64::from(pixels) * scale).round() as u32;
        let (w, h) = (side(self.pixels.0), side(self.pixels.1));
        let mut pixmap = Pixmap::new(w, h).context("a photo has pixels")?;
        let of = tree.size();
        let fill = Transform::from_scale(w as f32 / of.width(), h as f32 / of.height());
        resvg::render(&tree, fill, &mut pixmap.as_mut());
        let rgb = pixmap
            .pixels()
            .iter()
            .flat_map(|p| [p.red(), p.green(), p.blue()])
            .collect();
        RgbImage::from_raw(w, h, rgb).context("a photo has three colours a pixel")
    }
}

const fn photo(
    name: &'static str,
    pixels: (u32, u32),
    print: (f64, f64),
    scene: fn() -> String,
) -> Photo {
    Photo {
        name,
        pixels,
        print,
        is_file: false,
        keep: &[],
        cover: &[],
        scene,
    }
}

impl Photo {
    const fn keep(mut self, areas: &'static [Area]) -> Photo {
        self.keep = areas;
        self
    }

    const fn cover(mut self, areas: &'static [Area]) -> Photo {
        self.cover = areas;
        self
    }

    const fn file(mut self) -> Photo {
        self.is_file = true;
        self
    }
}

/// The photos that the demo's spread shows, by their places in [`PHOTOS`]: six with a place, then what is left over.
const ON_THE_SPREAD: [usize; 8] = [0, 1, 2, 3, 4, 5, 6, 7];

/// The prints on the demo's spread as a plan has them.
#[must_use]
pub fn prints() -> serde_json::Value {
    let area = |[x, y, w, h]: &Area| json!({"x": x, "y": y, "w": w, "h": h});
    let print = |(n, photo): (usize, &Photo)| {
        let mut print = json!({
            "id": (n + 1).to_string(), "w": photo.print.0, "h": photo.print.1, "name": photo.name, "picture": photo.id(),
            "pixels": [photo.pixels.0, photo.pixels.1],
        });
        for (field, areas) in [("faces", photo.keep), ("covers", photo.cover)] {
            if !areas.is_empty() {
                print[field] = areas.iter().map(area).collect();
            }
        }
        for (field, is_so) in [
            ("focal", n == 0),
            ("file", photo.is_file),
            ("aside", n >= 6),
        ] {
            if is_so {
                print[field] = json!(true);
            }
        }
        print
    };
    let chosen = ON_THE_SPREAD.iter().map(|n| &PHOTOS[*n]).enumerate();
    chosen.map(print).collect()
}

/// The festival's photos: prints of usual sizes and files, at 2 to 12 megapixels, one of them too small for most places.
pub const PHOTOS: [Photo; 16] = [
    photo(
        "Kite over Wren",
        (2400, 3200),
        (6.0, 8.0),
        scenes::kite_and_face,
    )
    .keep(&[[0.2, 0.12, 0.44, 0.4], [0.42, 0.64, 0.22, 0.2]])
    .cover(&[[0.02, 0.67, 0.17, 0.15]]),
    photo("Tea urn", (1600, 2400), (4.0, 6.0), scenes::tea_urn).keep(&[[0.22, 0.26, 0.56, 0.5]]),
    photo("Sledge race", (2400, 1600), (6.0, 4.0), scenes::sledge_race)
        .keep(&[[0.1, 0.46, 0.76, 0.46]]),
    photo(
        "Lanterns at dusk",
        (2000, 1500),
        (4.0, 3.0),
        scenes::lanterns_at_dusk,
    ),
    photo(
        "All five of us",
        (2400, 1600),
        (6.0, 4.0),
        scenes::group_of_five,
    )
    .keep(&[[0.1, 0.42, 0.82, 0.36]]),
    photo(
        "Kites far off",
        (2000, 1500),
        (4.0, 3.0),
        scenes::kites_far_off,
    ),
    photo(
        "Gloves and reel",
        (1500, 2000),
        (3.0, 4.0),
        scenes::gloved_hands,
    ),
    photo(
        "Low sun over the flats",
        (4000, 3000),
        (6.0, 4.5),
        scenes::low_sun,
    )
    .file(),
    photo(
        "Dog on the sand",
        (2400, 1800),
        (4.0, 3.0),
        scenes::dog_on_sand,
    )
    .keep(&[[0.4, 0.45, 0.4, 0.4]]),
    photo("Red kite", (1800, 2400), (6.0, 8.0), scenes::red_kite).file(),
    photo(
        "Flags drying",
        (2400, 1600),
        (6.0, 4.0),
        scenes::flags_drying,
    ),
    photo("Footprints", (1800, 2400), (3.0, 4.0), scenes::footprints),
    photo("Two mugs", (1600, 1600), (4.0, 4.0), scenes::two_mugs).file(),
    photo("Boots", (640, 480), (4.0, 3.0), scenes::boots).file(),
    photo(
        "Plover with the sledge",
        (1800, 2400),
        (4.0, 6.0),
        scenes::with_sledge,
    )
    .keep(&[[0.36, 0.26, 0.28, 0.24]]),
    photo(
        "One lantern",
        (1500, 2000),
        (3.0, 4.0),
        scenes::lantern_close,
    ),
];
