//! Sheets and orders as they cross the wire.

use super::store::{OrderRow, PrinterRow};
use super::{Laid, Sheet};
use crate::documents::sketches::{BoxDoc, SizeDoc};
use crate::http::error::{Failure, Problem};
use metrosk_core::length::{Length, Unit};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// Sheets of photos to print, lengths in inches.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct PrintSheetsView {
    /// What lies on each.
    pub(crate) sheets: Vec<PrintSheetView>,
    /// Prints that no such sheet holds.
    pub(crate) too_large: Vec<String>,
}

/// A sheet of photo paper.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct PrintSheetView {
    /// Its size.
    pub(crate) size: SizeDoc,
    /// How far photos are printed beyond where they are cut.
    pub(crate) bleed: f64,
    /// What lies on it.
    pub(crate) photos: Vec<SheetPhotoView>,
}

/// A photo on a sheet.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct SheetPhotoView {
    /// The print.
    pub(crate) print: String,
    /// Where it lies, with its bleed.
    #[serde(rename = "box")]
    pub(crate) place: BoxDoc,
    /// It lies on its side.
    pub(crate) turned: bool,
    /// What shows there, in shares of the print; beyond 0 and 1 where the bleed is.
    pub(crate) shows: [f64; 4],
    /// Its dots an inch.
    pub(crate) dots: f64,
}

fn inches(ticks: i64) -> f64 {
    Length::from_ticks(ticks).to_units(Unit::Inch)
}

fn sheet(s: &Sheet) -> PrintSheetView {
    let photo = |p: &super::SheetPhoto| {
        let [x, y, w, h] = p.rect.map(inches);
        SheetPhotoView {
            print: p.print.clone(),
            place: BoxDoc { x, y, w, h },
            turned: p.turned,
            shows: p.shows,
            dots: p.dots.round(),
        }
    };
    PrintSheetView {
        size: SizeDoc {
            w: inches(s.size.w),
            h: inches(s.size.h),
        },
        bleed: inches(s.bleed),
        photos: s.photos.iter().map(photo).collect(),
    }
}

impl From<&Laid> for PrintSheetsView {
    fn from(laid: &Laid) -> PrintSheetsView {
        PrintSheetsView {
            sheets: laid.sheets.iter().map(sheet).collect(),
            too_large: laid.too_large.clone(),
        }
    }
}

/// Photos that were sent to be printed.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct PrintOrderView {
    /// Its id.
    pub(crate) id: Uuid,
    /// The page.
    pub(crate) page: Uuid,
    /// How many sheets it has.
    pub(crate) sheets: usize,
    /// Those that are printed.
    pub(crate) printed: Vec<PrintedSheetView>,
    /// `waiting`, `running`, `done`, `failed` or `cancelled`
    pub(crate) state: String,
    /// How far it is.
    pub(crate) progress: Option<String>,
    /// Why it stopped.
    #[schema(value_type = Option<Problem>)]
    pub(crate) problem: Option<Value>,
    /// Who sent it.
    pub(crate) asked_by: String,
    /// Its job, which can be cancelled.
    pub(crate) job: Uuid,
    /// When it was sent.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) made_at: OffsetDateTime,
}

/// A sheet that was printed.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub(crate) struct PrintedSheetView {
    /// Its number, from 1.
    pub(crate) sheet: i32,
    /// When it lay in the printer's tray.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) at: OffsetDateTime,
}

pub(crate) fn order(row: OrderRow) -> Result<PrintOrderView, Failure> {
    let sheets = row.sheets.as_array().map_or(0, Vec::len);
    // A job is forgotten some time after it ended.
    let ended = if row.printed.len() == sheets {
        "done"
    } else {
        "failed"
    };
    let printed = row
        .printed
        .into_iter()
        .zip(row.printed_at)
        .map(|(sheet, at)| PrintedSheetView { sheet, at })
        .collect();
    Ok(PrintOrderView {
        id: row.id,
        page: row.page_id,
        sheets,
        printed,
        state: row.state.unwrap_or_else(|| ended.to_owned()),
        progress: row.progress,
        problem: row.problem,
        asked_by: row.asked_by,
        job: row.job_id,
        made_at: row.made_at,
    })
}

/// The simulated photo printer.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
pub(crate) struct PrinterView {
    /// Sheets left in its tray.
    #[schema(minimum = 0, maximum = 500)]
    pub(crate) paper: i32,
    /// Of a hundred parts of ink, what is left.
    #[schema(minimum = 0, maximum = 100)]
    pub(crate) ink: i32,
    /// Whether paper is jammed in it.
    pub(crate) jammed: bool,
}

impl From<PrinterRow> for PrinterView {
    fn from(row: PrinterRow) -> PrinterView {
        PrinterView {
            paper: row.paper,
            ink: row.ink,
            jammed: row.jammed,
        }
    }
}
