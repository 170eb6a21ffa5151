//! The simulated cutting machine: it reads a sheet's SVG, refuses what a machine can't cut, cuts line by line, can jam or lose its place, and
//! keeps a log.

use super::blade::{refusal, seconds};
use super::store::{self as machine, MachineRow};
use crate::http::error::Failure;
use crate::state::App;
use async_trait::async_trait;
use metrosk_core::geometry::Size;
use metrosk_core::length::Length;
use metrosk_ports::{CutOrder, Cutter, OrderId, PortError, Progress};
use metrosk_sheet::{BladeSheet, read_blade_sheet};
use std::time::Duration;
use uuid::Uuid;

/// What it is called.
const DEVICE: &str = "The cutting machine";
/// How long the simulated blade takes for a line, whatever its length.
const A_LINE: Duration = Duration::from_millis(30);

/// A team's machine.
pub(super) struct Simulated {
    pub(super) app: App,
    pub(super) team: Uuid,
}

/// Names a sheet of an order to the machine.
pub(super) fn order_id(order: Uuid, sheet: usize) -> OrderId {
    OrderId(format!("{order}/{sheet}"))
}

fn parts_of(id: &OrderId) -> Option<(Uuid, i32)> {
    let (order, sheet) = id.0.split_once('/')?;
    Some((order.parse().ok()?, sheet.parse().ok()?))
}

/// The mats by name.
pub(super) const MATS: [(&str, Size); 2] = [("12x12", inches(12, 12)), ("12x24", inches(12, 24))];

const fn inches(w: i64, h: i64) -> Size {
    Size {
        w: Length::inches(w, 1),
        h: Length::inches(h, 1),
    }
}

fn mat_of(row: &MachineRow) -> Size {
    let own = MATS.iter().find(|(name, _)| *name == row.mat);
    own.map_or(MATS[0].1, |(_, size)| *size)
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

fn unreachable(failure: &Failure) -> PortError {
    tracing::warn!(error = %failure, "the simulated cutting machine's state can't be had");
    PortError::Unreachable {
        device: DEVICE.to_owned(),
    }
}

const JAMMED: &str =
    "the paper is jammed: take it off, lay it on the mat again, and take the jam out";
const LOST: &str = "it lost its place: lay the sheet's left top corner on the mark, and tell it so";

/// How a step of the blade ends.
enum Blade {
    /// So many lines are cut.
    Cut(usize),
    /// Somebody has to see to it.
    Stopped(&'static str),
}

impl Simulated {
    async fn state(&self) -> Result<MachineRow, Failure> {
        let mut tx = self.app.pool.begin().await?;
        let row = machine::machine(&mut tx, self.team).await?;
        tx.commit().await?;
        Ok(row)
    }

    /// The next line, in a transaction of its own: a machine that is switched off between two lines knows where it stopped.
    async fn next_line(&self, at: (Uuid, i32), sheet: &BladeSheet) -> Result<Blade, Failure> {
        let mut tx = self.app.pool.begin().await?;
        let mut state = machine::machine(&mut tx, self.team).await?;
        let lines = sheet.lines.len();
        let cut = machine::lines_cut(&mut tx, self.team, at, lines as i32).await? as usize;
        if cut >= lines {
            tx.commit().await?;
            return Ok(Blade::Cut(cut));
        }
        if state.trouble != "none" && state.trouble_after == 0 {
            state.jammed |= state.trouble == "jam";
            state.lost |= state.trouble == "lost";
            "none".clone_into(&mut state.trouble);
            machine::set_machine(&mut *tx, self.team, &state).await?;
        }
        let stopped = match (state.jammed, state.lost) {
            (true, _) => Some(JAMMED),
            (_, true) => Some(LOST),
            _ => None,
        };
        if let Some(what) = stopped {
            let said = format!("Stopped after {cut} of {lines} lines: {what}.");
            machine::log(&mut tx, self.team, at, &said).await?;
            tx.commit().await?;
            return Ok(Blade::Stopped(what));
        }
        if state.trouble != "none" {
            state.trouble_after -= 1;
            machine::set_machine(&mut *tx, self.team, &state).await?;
        }
        if cut == 0 {
            machine::log(&mut tx, self.team, at, "The blade is down.").await?;
        }
        machine::cut_one(&mut tx, self.team, at).await?;
        if cut + 1 == lines {
            let took = seconds(&sheet.lines).round();
            let said = format!("All {lines} lines are cut, in about {took} seconds.");
            machine::log(&mut tx, self.team, at, &said).await?;
        }
        tx.commit().await?;
        Ok(Blade::Cut(cut + 1))
    }

    async fn write_down(&self, at: (Uuid, i32), said: &str) -> Result<(), Failure> {
        let mut tx = self.app.pool.begin().await?;
        // One at a time writes.
        machine::machine(&mut tx, self.team).await?;
        machine::log(&mut tx, self.team, at, said).await?;
        tx.commit().await?;
        Ok(())
    }
}

#[async_trait]
impl Cutter for Simulated {
    async fn mat(&self) -> Result<Size, PortError> {
        let state = self.state().await.map_err(|e| unreachable(&e))?;
        Ok(mat_of(&state))
    }

    async fn cut(&self, order: &CutOrder, progress: &dyn Progress) -> Result<(), PortError> {
        let at = parts_of(&order.id)
            .ok_or_else(|| refused(format!("it does not know the order {}", order.id.0)))?;
        let sheet = read_blade_sheet(&order.svg)
            .map_err(|e| refused(format!("“{}” can't be read: {e}", order.sheet)))?;
        if let Some(why) = refusal(&sheet, self.mat().await?) {
            let why = format!("“{}”: {why}", order.sheet);
            let said = format!("Refused {why}.");
            self.write_down(at, &said)
                .await
                .map_err(|e| unreachable(&e))?;
            return Err(refused(why));
        }
        loop {
            if progress.is_cancelled() {
                return Err(PortError::Cancelled);
            }
            match self
                .next_line(at, &sheet)
                .await
                .map_err(|e| unreachable(&e))?
            {
                Blade::Stopped(what) => return Err(needs(what)),
                Blade::Cut(cut) if cut >= sheet.lines.len() => return Ok(()),
                Blade::Cut(cut) => {
                    let left = seconds(&sheet.lines[cut..]).round();
                    let count = sheet.lines.len();
                    progress.tell(&format!("line {cut} of {count}, about {left} s to go"));
                    tokio::time::sleep(A_LINE).await;
                }
            }
        }
    }
}
