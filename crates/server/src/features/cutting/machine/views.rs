//! Orders to the cutting machine as they cross the wire.

use super::store::{MachineRow, OrderRow};
use crate::http::error::Problem;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// Sheets that were sent to the cutting machine.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct CutOrderView {
    /// Its id.
    pub(crate) id: Uuid,
    /// The page.
    pub(crate) page: Uuid,
    /// Its sheets, in order.
    pub(crate) sheets: Vec<MachineSheetView>,
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
    /// What the machine wrote down of it.
    pub(crate) log: Vec<MachineWordView>,
}

/// A sheet on the machine.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct MachineSheetView {
    /// What the maker calls it.
    pub(crate) name: String,
    /// How many lines it has; 0 before it is begun.
    pub(crate) lines: i32,
    /// How many of them are cut.
    pub(crate) cut: i32,
}

/// A line of the machine's log.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct MachineWordView {
    /// What happened.
    pub(crate) said: String,
    /// When.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) at: OffsetDateTime,
}

impl From<OrderRow> for CutOrderView {
    fn from(row: OrderRow) -> CutOrderView {
        let names = row.sheets.as_array().into_iter().flatten();
        let sheets: Vec<MachineSheetView> = names
            .zip(1..)
            .map(|(sheet, n)| {
                let at = row.sheet.iter().position(|s| *s == n);
                MachineSheetView {
                    name: sheet["name"].as_str().unwrap_or_default().to_owned(),
                    lines: at.map_or(0, |at| row.lines[at]),
                    cut: at.map_or(0, |at| row.cut[at]),
                }
            })
            .collect();
        // A job is forgotten some time after it ended.
        let is_done = sheets.iter().all(|s| s.lines > 0 && s.cut == s.lines);
        let ended = if is_done { "done" } else { "failed" };
        let log = row.said.into_iter().zip(row.said_at);
        CutOrderView {
            id: row.id,
            page: row.page_id,
            sheets,
            state: row.state.unwrap_or_else(|| ended.to_owned()),
            progress: row.progress,
            problem: row.problem,
            asked_by: row.asked_by,
            job: row.job_id,
            made_at: row.made_at,
            log: log.map(|(said, at)| MachineWordView { said, at }).collect(),
        }
    }
}

/// The simulated cutting machine.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct MachineView {
    /// Its mat: `12x12` or `12x24`.
    pub(crate) mat: String,
    /// Whether paper is jammed in it.
    pub(crate) jammed: bool,
    /// Whether it lost its place.
    pub(crate) lost: bool,
    /// What is going to happen to it: `none`, `jam` or `lost`.
    pub(crate) trouble: String,
    /// After how many more lines.
    #[schema(minimum = 0, maximum = 10000)]
    pub(crate) trouble_after: i32,
}

impl From<MachineRow> for MachineView {
    fn from(row: MachineRow) -> MachineView {
        MachineView {
            mat: row.mat,
            jammed: row.jammed,
            lost: row.lost,
            trouble: row.trouble,
            trouble_after: row.trouble_after,
        }
    }
}
