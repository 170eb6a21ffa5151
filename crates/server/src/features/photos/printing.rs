//! Printing: a page's files laid on sheets of photo paper, as PDF and as pictures, and sent to the printer.
//!
//! An order has its sheets written down as they are sent, so that a change of the page meanwhile prints nothing else. Each sheet is an order of
//! its own to the printer, named by the order and its number: a job that is begun again prints none twice.

pub(crate) mod job;
mod pixels;
pub(crate) mod routes;
mod simulated;
mod store;
pub(crate) mod views;

use crate::features::photos::pictures::on_prints;
use crate::http::error::Failure;
use metrosk_core::document::Invalid;
use metrosk_core::geometry::{Rect, Size};
use metrosk_core::layout::Layout;
use metrosk_core::length::{Length, Unit};
use metrosk_core::photos::{OnSheet, Paper, ToPrint, on_sheets};
use metrosk_core::placed_photos::{PlacedPhoto, placed_photos};
use metrosk_core::plan::Plan;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

/// Papers by name: their sides, and whether the printer reaches their edges.
const PAPERS: [(&str, Size, bool); 7] = [
    ("4x6", inches(4, 6), true),
    ("5x7", inches(5, 7), true),
    ("8x10", inches(8, 10), true),
    (
        "letter",
        Size {
            w: Length::inches(17, 2),
            h: Length::inches(11, 1),
        },
        false,
    ),
    ("a4", millimetres(210, 297), false),
    ("12x12", inches(12, 12), false),
    ("10x15 cm", millimetres(100, 150), true),
];
/// What the printer leaves white along the edges of papers that it does not print to the edge.
const UNREACHED: Length = Length::inches(1, 8);

const fn inches(w: i64, h: i64) -> Size {
    Size {
        w: Length::inches(w, 1),
        h: Length::inches(h, 1),
    }
}

const fn millimetres(w: i64, h: i64) -> Size {
    Size {
        w: Length::from_ticks(Unit::Millimetre.ticks() * w),
        h: Length::from_ticks(Unit::Millimetre.ticks() * h),
    }
}

/// How photos are to be printed.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct PrintOptions {
    /// `4x6`, `5x7`, `8x10`, `letter`, `a4`, `12x12` or `10x15 cm`
    pub(crate) paper: String,
    /// How far photos are printed beyond where they are cut, in inches; 1/16 where it is left out.
    pub(crate) bleed: Option<f64>,
    /// Between two photos, in inches; 1/8 where it is left out.
    pub(crate) gap: Option<f64>,
}

/// Options as they are meant.
#[derive(Debug, Clone, Copy)]
struct Wanted {
    paper: Paper,
    bleed: Length,
}

impl PrintOptions {
    fn wanted(&self) -> Result<Wanted, Invalid> {
        let Some((_, size, to_edge)) = PAPERS.iter().find(|(name, ..)| *name == self.paper) else {
            let names: Vec<&str> = PAPERS.iter().map(|p| p.0).collect();
            return Err(Invalid::one(
                "paper",
                format!("“{}”", self.paper),
                names.join(", "),
            ));
        };
        let length = |name: &str, given: Option<f64>, usual: f64| {
            let found = given.unwrap_or(usual);
            let read =
                Length::from_units(found, Unit::Inch).filter(|_| (0.0..=1.0).contains(&found));
            read.ok_or_else(|| Invalid::one(name, found.to_string(), "0 to 1 in"))
        };
        Ok(Wanted {
            paper: Paper {
                size: *size,
                margin: if *to_edge { Length::ZERO } else { UNREACHED },
                gap: length("gap", self.gap, 0.125)?,
            },
            bleed: length("bleed", self.bleed, 0.0625)?,
        })
    }
}

/// A sheet as an order has it written down.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Sheet {
    pub(crate) size: TickSize,
    pub(crate) margin: i64,
    pub(crate) bleed: i64,
    pub(crate) photos: Vec<SheetPhoto>,
}

/// A size in ticks.
#[derive(Debug, Clone, Copy, Serialize, Deserialize)]
pub(crate) struct TickSize {
    pub(crate) w: i64,
    pub(crate) h: i64,
}

/// A photo on a sheet: its picture, where it lies in ticks, and what shows there in shares of the print (beyond 0 and 1 where the bleed is).
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct SheetPhoto {
    pub(crate) print: String,
    pub(crate) picture: Uuid,
    pub(crate) quarters: u32,
    pub(crate) rect: [i64; 4],
    pub(crate) turned: bool,
    pub(crate) shows: [f64; 4],
    pub(crate) dots: f64,
}

/// Sheets to print, and what does not go on any.
pub(crate) struct Laid {
    pub(crate) sheets: Vec<Sheet>,
    pub(crate) too_large: Vec<String>,
}

/// Lays a page's files on sheets.
pub(crate) fn laid(plan: &Value, layout: &Layout, options: &PrintOptions) -> Result<Laid, Failure> {
    let wanted = options.wanted()?;
    let read = Plan::from_json(plan)?;
    let drawn = read.sketch.decisions.sketch.photo_slots();
    let outcome = placed_photos(read.unit, drawn, &read.photos.decisions, layout);
    let pictures = on_prints(plan);
    let is_file = |p: &&PlacedPhoto| {
        let print = plan["photos"]["photos"].as_array();
        let own = print.and_then(|all| all.iter().find(|o| o["id"] == p.print.as_str()));
        own.is_some_and(|o| o["file"] == true) && pictures.iter().any(|o| o.print == p.print)
    };
    let files: Vec<&PlacedPhoto> = outcome.placed.iter().filter(is_file).collect();
    let to_print: Vec<ToPrint> = files
        .iter()
        .map(|p| ToPrint {
            id: p.print.clone(),
            size: Size {
                w: p.slot.w + wanted.bleed + wanted.bleed,
                h: p.slot.h + wanted.bleed + wanted.bleed,
            },
        })
        .collect();
    let found = on_sheets(&to_print, wanted.paper);
    let photo = |on: &OnSheet| {
        let placed = files.iter().find(|p| p.print == on.id)?;
        let picture = pictures.iter().find(|p| p.print == on.id)?;
        Some(SheetPhoto {
            print: on.id.clone(),
            picture: picture.picture,
            quarters: picture.turned,
            rect: [on.rect.x, on.rect.y, on.rect.w, on.rect.h].map(Length::ticks),
            turned: on.turned,
            shows: shows(placed, wanted.bleed),
            dots: placed.dots.unwrap_or_default(),
        })
    };
    let sheet = |on: &Vec<OnSheet>| Sheet {
        size: TickSize {
            w: wanted.paper.size.w.ticks(),
            h: wanted.paper.size.h.ticks(),
        },
        margin: wanted.paper.margin.ticks(),
        bleed: wanted.bleed.ticks(),
        photos: on.iter().filter_map(photo).collect(),
    };
    Ok(Laid {
        sheets: found.sheets.iter().map(sheet).collect(),
        too_large: found.too_large,
    })
}

/// What shows of a print with its bleed, in shares of it.
fn shows(placed: &PlacedPhoto, bleed: Length) -> [f64; 4] {
    let share = |at: Length, of: Length| at.ticks() as f64 / of.ticks() as f64;
    let Rect { x, y, w, h } = placed.window;
    [
        share(x - bleed, placed.size.w),
        share(y - bleed, placed.size.h),
        share(w + bleed + bleed, placed.size.w),
        share(h + bleed + bleed, placed.size.h),
    ]
}
