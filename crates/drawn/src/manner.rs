//! In what manner a sketch is drawn: each aspect by itself.

use rand::Rng;
use rand::rngs::StdRng;

/// Which manners may be drawn.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Set {
    /// For making and tuning: without the variants that are kept.
    Tuning,
    /// For checking: at least one variant that is kept.
    Checking,
}

/// An aspect's variants: those for tuning first, then those that are kept for checking.
macro_rules! aspect {
    ($(#[$about:meta])* $name:ident: $($(#[$says:meta])* $variant:ident),+; kept $($(#[$kept_says:meta])* $kept:ident),*) => {
        $(#[$about])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
        pub enum $name { $($(#[$says])* $variant,)+ $($(#[$kept_says])* $kept,)* }

        impl $name {
            const TUNING: &'static [$name] = &[$($name::$variant),+];
            const KEPT: &'static [$name] = &[$($name::$kept),*];

            fn drawn(luck: &mut StdRng, keep: bool) -> $name {
                let from = if keep { $name::KEPT } else { $name::TUNING };
                from[luck.random_range(0..from.len())]
            }

            /// Whether it is one of those that are kept for checking.
            #[must_use]
            pub fn is_kept(self) -> bool {
                $name::KEPT.contains(&self)
            }
        }
    };
}

aspect! {
    /// How a photo is told.
    Photo:
        /// Filled with grey.
        Grey,
        /// A small landscape.
        Landscape,
        /// The word for it.
        Word,
        /// Its size in numbers.
        Size,
        /// Crossed lines.
        Crossed,
        /// An empty outline.
        Plain;
    kept
        /// A camera drawn on grey.
        Camera
}

aspect! {
    /// How a mat is told.
    Mat:
        /// A second line round the photo.
        Double,
        /// A frame of a tint.
        Tint,
        /// A frame of a tint without an outline.
        Bare;
    kept
        /// A hatched frame.
        Hatched
}

aspect! {
    /// How papers and strips are filled.
    Fill:
        /// Not at all.
        Empty,
        /// Dots.
        Dots,
        /// Slanted lines.
        Hatch,
        /// Level or upright lines.
        Stripes,
        /// A flat tint.
        Tint;
    kept
        /// Crossed slanted lines.
        Checks
}

aspect! {
    /// How a title is told.
    Title:
        /// Heavy letters.
        Heavy,
        /// Letters with an outline only.
        Outline,
        /// A box with a word in it.
        Boxed,
        /// Letters by hand.
        Hand;
    kept
        /// Loops as of a script.
        Script
}

aspect! {
    /// How writing is told.
    Journal:
        /// Lines.
        Lines,
        /// Dotted lines.
        Dotted,
        /// Small print.
        Print,
        /// Lines in a box.
        Boxed;
    kept
        /// Zigzags.
        Zigzag
}

aspect! {
    /// What a cluster is made of.
    Cluster:
        /// Flowers.
        Flowers,
        /// Stars.
        Stars,
        /// Hearts and dots.
        Hearts,
        /// Leaves.
        Leaves;
    kept
        /// Buttons.
        Buttons
}

aspect! {
    /// By what the page is told from what lies round it.
    Page:
        /// A thin outline.
        Thin,
        /// A thick outline.
        Thick,
        /// A shadow under a sheet.
        Shadow,
        /// The picture's own edge.
        Edge;
    kept
        /// A tint alone.
        Tint
}

aspect! {
    /// With what it is drawn.
    Instrument:
        /// By a drawing program.
        Vector,
        /// In pencil.
        Pencil,
        /// With a felt pen.
        Pen;
    kept
        /// With a blue ballpoint.
        Ballpoint
}

aspect! {
    /// What the page is drawn on.
    Ground:
        /// White paper.
        White,
        /// Cream or kraft.
        Toned,
        /// Squared paper.
        Squared;
    kept
        /// Paper with a grid of dots.
        Dotted
}

aspect! {
    /// How the drawing came into the picture.
    Camera:
        /// As a file.
        Flat,
        /// As a file with words above and below.
        Captioned,
        /// Photographed at an angle on a table.
        Table,
        /// Photographed in a lamp's shadow.
        Lamp,
        /// Photographed in a printed book.
        Book;
    kept
        /// Photographed while the sheet curls.
        Curled
}

/// A manner: one variant of each aspect, and how they are carried out.
#[derive(Clone, Copy, Debug, PartialEq)]
#[allow(missing_docs, reason = "each field is the aspect it is named after")]
pub struct Manner {
    pub photo: Photo,
    pub mat: Mat,
    pub fill: Fill,
    pub title: Title,
    pub journal: Journal,
    pub cluster: Cluster,
    pub page: Page,
    pub instrument: Instrument,
    pub ground: Ground,
    pub camera: Camera,
    /// Whether papers and strips have an outline.
    pub outlined: bool,
    /// Whether photos that are filled have an outline too.
    pub framed: bool,
    /// Whether there is a tint under a paper's pattern.
    pub tinted: bool,
    /// Whether each thing throws a shadow on what it lies on.
    pub raised: bool,
    /// Which of a ground's tones.
    pub tone: u8,
    /// Whether there is colour.
    pub coloured: bool,
    /// Whether the two pages of a spread lie apart.
    pub apart: bool,
    /// 1, or 2 for a spread.
    pub pages: u8,
}

/// How many tones a ground has.
pub(crate) const TONES: u8 = 4;

/// The aspects of which a variant may be kept.
const ASPECTS: usize = 10;

impl Manner {
    /// Draws one. For checking one or two of its aspects, drawn at random, have a variant that is kept.
    pub fn drawn(luck: &mut StdRng, set: Set) -> Manner {
        let mut keep = [false; ASPECTS];
        if set == Set::Checking {
            for _ in 0..luck.random_range(1..=2) {
                keep[luck.random_range(0..ASPECTS)] = true;
            }
        }
        let mut manner = Manner {
            photo: Photo::drawn(luck, keep[0]),
            mat: Mat::drawn(luck, keep[1]),
            fill: Fill::drawn(luck, keep[2]),
            title: Title::drawn(luck, keep[3]),
            journal: Journal::drawn(luck, keep[4]),
            cluster: Cluster::drawn(luck, keep[5]),
            page: Page::drawn(luck, keep[6]),
            instrument: Instrument::drawn(luck, keep[7]),
            ground: Ground::drawn(luck, keep[8]),
            camera: Camera::drawn(luck, keep[9]),
            outlined: luck.random_bool(0.7),
            framed: luck.random_bool(0.7),
            tinted: luck.random_bool(0.3),
            raised: luck.random_bool(0.25),
            tone: luck.random_range(0..TONES),
            coloured: luck.random_bool(0.4),
            apart: luck.random_bool(0.4),
            pages: if luck.random_bool(0.25) { 2 } else { 1 },
        };
        // What can't be told at all is told by no hand: a paper without filling has an outline, a page in a photograph an edge.
        manner.outlined |= manner.fill == Fill::Empty || manner.instrument != Instrument::Vector;
        if manner.is_photographed() && manner.page == Page::Edge {
            manner.page = Page::Thin;
        }
        if manner.is_by_hand() {
            (manner.framed, manner.raised) = (true, false);
            manner.tinted &= manner.coloured;
        }
        if manner.mat == Mat::Bare && manner.instrument != Instrument::Vector {
            manner.mat = Mat::Double;
        }
        manner
    }

    /// Whether a camera took it.
    #[must_use]
    pub fn is_photographed(&self) -> bool {
        matches!(
            self.camera,
            Camera::Table | Camera::Lamp | Camera::Book | Camera::Curled
        )
    }

    /// Whether it is drawn by hand.
    #[must_use]
    pub fn is_by_hand(&self) -> bool {
        self.instrument != Instrument::Vector
    }

    /// How its kind is called in tables of figures.
    #[must_use]
    pub fn style(&self) -> &'static str {
        match (self.pages, self.is_photographed(), self.is_by_hand()) {
            (2, true, _) => "two by phone",
            (2, false, _) => "two pages",
            (_, true, _) => "phone",
            (_, false, true) => "by hand",
            (_, false, false) => "diagram",
        }
    }

    /// Its variants by name, each with whether it is kept.
    #[must_use]
    pub fn variants(&self) -> Vec<(String, bool)> {
        macro_rules! named {
            ($($field:ident),+) => {
                vec![$((format!("{} {:?}", stringify!($field), self.$field).to_lowercase(), self.$field.is_kept())),+]
            };
        }
        named!(
            photo, mat, fill, title, journal, cluster, page, instrument, ground, camera
        )
    }
}
