//! The demo: a small paper club documents a kite festival on a winter tidal flat. Everything in it is invented, and made
//! by code from a seed, so that nothing is borrowed and every start shows the same.

mod finished;
mod lettering;
mod pages;
mod papers;
mod photos;
mod pictures;
mod season;
mod sketches;
mod teams;

pub use finished::finished_page;
pub use pages::Page;
pub use papers::{PaperSide, StashThing, hands, paper, things};
pub use photos::{Area, PHOTOS, Photo, prints};
pub use pictures::{Style, picture};
pub use season::{ChainMaker, SeasonCall};
pub use teams::{Team, teams};

use image::RgbImage;
use metrosk_core::sketch::{Kind, Sketch};

/// The seed that the application's demo is made from.
pub const SEED: u64 = 20_261_127;

/// The account of the club's lead, as whom one click signs in.
pub const MAKER_ACCOUNT: &str = "wren";

/// Everybody's password in the demo. It protects nothing: the demo is for looking around.
pub const PASSWORD: &str = "low sun on wet sand";

/// The club's sketches, in the order in which they lie in the drawer.
pub fn sketches(seed: u64) -> Vec<Sketch> {
    sketches::all(seed)
}

/// A crowded sketch of 25 blocks, for load and benchmarks.
pub fn crowd() -> Sketch {
    sketches::crowd()
}

/// A sketch without what the pictures of sketches do not draw: photos, mats, panels, strips and writing are left.
#[must_use]
pub fn drawable(sketch: &Sketch) -> Sketch {
    let drawn = |kind: Kind| {
        matches!(
            kind,
            Kind::Photo | Kind::Mat | Kind::Paper | Kind::Strip | Kind::Journal
        )
    };
    let blocks = sketch
        .blocks
        .iter()
        .filter(|b| drawn(b.kind))
        .cloned()
        .collect();
    Sketch {
        blocks,
        ..sketch.clone()
    }
}

/// The pictures of the demo: the name that each is put in under, the picture, and the sketch that drew it. Three sketches as makers
/// have them, and a finished page to lift.
#[must_use]
pub fn scans(seed: u64) -> Vec<(&'static str, RgbImage, Sketch)> {
    let all = sketches(seed);
    let scan = |n: usize, style: Style| {
        let truth = drawable(&all[n]);
        (picture(&truth, style, seed), truth)
    };
    let ((diagram, a), (pencil, b), (phone, c)) = (
        scan(0, Style::Clean),
        scan(1, Style::Pencil),
        scan(4, Style::Phone),
    );
    let page = &all[2];
    vec![
        ("A diagram", diagram, a),
        ("Pencil on paper", pencil, b),
        ("Photo of a book's page", phone, c),
        (
            "A finished page to lift",
            finished_page(page, seed),
            page.clone(),
        ),
    ]
}
