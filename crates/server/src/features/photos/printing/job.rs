//! Sending an order to the printer, sheet by sheet.

use super::pixels::sheet_pixels;
use super::simulated::{Simulated, order_id};
use super::store as printing;
use super::{Sheet, TickSize};
use crate::compute::Work;
use crate::features::jobs::workers::Running;
use crate::features::pictures::routes::original;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_core::geometry::Size;
use metrosk_core::length::Length;
use metrosk_ports::{PortError, Print, PrintOrder, Printer, Progress};
use serde_json::{Value, json};
use std::collections::HashMap;
use uuid::Uuid;

/// The kind of these jobs.
pub(crate) const KIND: &str = "print";
/// What a sheet's picture is encoded with.
const QUALITY: u8 = 92;

struct Told(Running);

impl Progress for Told {
    fn tell(&self, _: &str) {}

    fn is_cancelled(&self) -> bool {
        self.0.cancel.is_cancelled()
    }
}

/// Prints what of an order is not printed yet.
pub(crate) async fn perform(app: &App, running: &Running, input: &Value) -> Result<Value, Failure> {
    let id = input["order"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok())
        .ok_or(Failure::Missing("order"))?;
    let order = printing::find(&app.pool, running.team, id)
        .await?
        .ok_or(Failure::Missing("order"))?;
    let sheets: Vec<Sheet> =
        serde_json::from_value(order.sheets).map_err(|e| Failure::Internal(e.to_string()))?;
    let printer = Simulated {
        app: app.clone(),
        team: running.team,
    };
    let told = Told(running.clone());
    let count = sheets.len();
    for (n, sheet) in (1..).zip(sheets) {
        if order.printed.contains(&(n as i32)) {
            continue;
        }
        running.progress(&format!("sheet {n} of {count}")).await?;
        let dots = sheet
            .photos
            .iter()
            .map(|p| p.dots)
            .fold(f64::INFINITY, f64::min);
        let TickSize { w, h } = sheet.size;
        let margin = Length::from_ticks(sheet.margin);
        let jpeg = sheet_jpeg(app, running.team, sheet).await?;
        let print = PrintOrder {
            id: order_id(id, n),
            prints: vec![Print {
                name: format!("sheet {n}"),
                size: Size {
                    w: Length::from_ticks(w),
                    h: Length::from_ticks(h),
                },
                copies: 1,
                margin,
                dots_an_inch: dots,
                jpeg,
            }],
        };
        printer.print(&print, &told).await.map_err(failed)?;
    }
    Ok(json!({"sheets": count}))
}

/// What the printer says, as its asker is told it.
fn failed(error: PortError) -> Failure {
    match error {
        PortError::Cancelled => Failure::Busy,
        other => Failure::Standing(format!("{other}.")),
    }
}

/// A sheet as JPEG, 300 dots an inch, from the pictures at their full size.
pub(super) async fn sheet_jpeg(app: &App, team: Uuid, sheet: Sheet) -> Result<Vec<u8>, Failure> {
    let mut originals = HashMap::new();
    for photo in &sheet.photos {
        originals.insert(photo.picture, original(app, team, photo.picture).await?);
    }
    let work = move |_: &metrosk_core::Cancel| {
        let decoded = |id: Uuid| {
            let bytes = originals.get(&id).ok_or("a picture is gone")?;
            let picture = metrosk_vision::decode(bytes).map_err(|e| e.to_string())?;
            Ok(picture.pixels)
        };
        let pixels = sheet_pixels(&sheet, decoded)?;
        metrosk_vision::jpeg(&pixels, QUALITY).map_err(|e| e.to_string())
    };
    let made = app.compute.run(team, Work::Picture, work).await?;
    made.map_err(Failure::Internal)
}
