//! The simulated photo printer: it takes sheets, refuses what a printer would, can run out or jam, and keeps a picture of what it printed.

use super::store::{self as printing, Printed};
use crate::features::files::content::{self as files, Content};
use crate::http::error::Failure;
use crate::state::App;
use async_trait::async_trait;
use metrosk_core::geometry::Size;
use metrosk_ports::{OrderId, PortError, PrintOrder, Printer, Progress};
use uuid::Uuid;

/// What it is called.
const DEVICE: &str = "The photo printer";
/// It prints nothing with fewer dots an inch.
const COARSEST: f64 = 100.0;
/// Of a hundred parts of ink, what a sheet takes.
const INK: i32 = 4;

/// A team's printer.
pub(super) struct Simulated {
    pub(super) app: App,
    pub(super) team: Uuid,
}

/// Names a sheet of an order to the printer.
pub(super) fn order_id(order: Uuid, sheet: usize) -> OrderId {
    OrderId(format!("{order}/{sheet}"))
}

fn parts_of(id: &OrderId) -> Option<(Uuid, i32)> {
    let (order, sheet) = id.0.split_once('/')?;
    Some((order.parse().ok()?, sheet.parse().ok()?))
}

fn unreachable(failure: &dyn std::fmt::Display) -> PortError {
    tracing::warn!(error = %failure, "the simulated printer's state can't be had");
    PortError::Unreachable {
        device: DEVICE.to_owned(),
    }
}

fn refused(why: String) -> PortError {
    PortError::Refused {
        device: DEVICE.to_owned(),
        why,
    }
}

fn needs(what: &str) -> PortError {
    PortError::NeedsAttention {
        device: DEVICE.to_owned(),
        what: what.to_owned(),
    }
}

impl Simulated {
    async fn carry_out(
        &self,
        order: Uuid,
        sheet: i32,
        jpeg: &[u8],
    ) -> Result<Result<(), PortError>, Failure> {
        let mut tx = self.app.pool.begin().await?;
        // One sheet at a time goes through it.
        let state = printing::printer(&mut tx, self.team).await?;
        if printing::is_printed(&mut tx, order, sheet).await? {
            return Ok(Ok(()));
        }
        if state.jammed {
            return Ok(Err(needs("paper is jammed in it: take it out")));
        }
        if state.paper == 0 {
            return Ok(Err(needs("it has no paper left: fill its tray")));
        }
        if state.ink < INK {
            return Ok(Err(needs("it has no ink left: change the cartridge")));
        }
        let picture = Content {
            kind: "printed",
            media_type: "image/jpeg",
            bytes: jpeg.to_vec(),
        };
        let file = files::keep(&self.app, &mut tx, self.team, vec![picture])
            .await?
            .concat();
        let printed = Printed {
            order,
            sheet,
            file: &file,
        };
        printing::insert_printed(&mut tx, self.team, printed).await?;
        printing::use_up(&mut *tx, self.team, INK).await?;
        tx.commit().await?;
        Ok(Ok(()))
    }
}

#[async_trait]
impl Printer for Simulated {
    async fn papers(&self) -> Result<Vec<Size>, PortError> {
        Ok(super::PAPERS.iter().map(|p| p.1).collect())
    }

    async fn print(&self, order: &PrintOrder, progress: &dyn Progress) -> Result<(), PortError> {
        let (id, sheet) = parts_of(&order.id)
            .ok_or_else(|| refused(format!("it does not know the order {}", order.id.0)))?;
        for print in &order.prints {
            if progress.is_cancelled() {
                return Err(PortError::Cancelled);
            }
            let paper = super::PAPERS.iter().find(|p| p.1 == print.size);
            let Some((name, _, to_edge)) = paper else {
                let names: Vec<&str> = super::PAPERS.iter().map(|p| p.0).collect();
                return Err(refused(format!(
                    "“{}” is on no paper that it takes: {}",
                    print.name,
                    names.join(", ")
                )));
            };
            if !to_edge && print.margin < super::UNREACHED {
                return Err(refused(format!(
                    "{name} paper can't be printed to its edge; leave 1/8 in white"
                )));
            }
            if print.dots_an_inch < COARSEST {
                return Err(refused(format!(
                    "“{}” has {:.0} dots an inch; it prints from {COARSEST:.0} on",
                    print.name, print.dots_an_inch
                )));
            }
            progress.tell(&print.name);
            self.carry_out(id, sheet, &print.jpeg)
                .await
                .map_err(|failure| unreachable(&failure.problem().title))??;
        }
        Ok(())
    }
}
