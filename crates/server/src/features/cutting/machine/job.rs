//! Sending an order to the cutting machine, sheet by sheet.

use super::SheetOrder;
use super::simulated::{Simulated, order_id};
use super::store as machine;
use crate::features::jobs::workers::Running;
use crate::http::error::Failure;
use crate::state::App;
use metrosk_ports::{CutOrder, Cutter, PortError, Progress};
use serde_json::{Value, json};
use tokio::sync::mpsc::{UnboundedSender, unbounded_channel};
use uuid::Uuid;

/// The kind of these jobs.
pub(crate) const KIND: &str = "cut";

/// Hands on what the machine tells: the blade does not wait for the database.
struct Told {
    running: Running,
    sheet: String,
    stages: UnboundedSender<String>,
}

impl Progress for Told {
    fn tell(&self, stage: &str) {
        // Nobody listens any more once the job has ended.
        let _ = self.stages.send(format!("{}: {stage}", self.sheet));
    }

    fn is_cancelled(&self) -> bool {
        self.running.cancel.is_cancelled()
    }
}

/// Cuts what of an order is not cut yet.
pub(crate) async fn perform(app: &App, running: &Running, input: &Value) -> Result<Value, Failure> {
    let id = input["order"]
        .as_str()
        .and_then(|id| Uuid::parse_str(id).ok())
        .ok_or(Failure::Missing("order"))?;
    let rows = machine::orders(&app.pool, running.team, (None, Some(id)), 1).await?;
    let order = rows.into_iter().next().ok_or(Failure::Missing("order"))?;
    let sheets: Vec<SheetOrder> =
        serde_json::from_value(order.sheets).map_err(|e| Failure::Internal(e.to_string()))?;
    let cutter = Simulated {
        app: app.clone(),
        team: running.team,
    };
    let count = sheets.len();
    for (n, sheet) in (1..).zip(sheets) {
        running.progress(&format!("sheet {n} of {count}")).await?;
        let order = CutOrder {
            id: order_id(id, n),
            sheet: sheet.name,
            svg: sheet.svg,
        };
        cut(&cutter, running, &order, n).await.map_err(failed)?;
    }
    Ok(json!({"sheets": count}))
}

async fn cut(
    cutter: &Simulated,
    running: &Running,
    order: &CutOrder,
    n: usize,
) -> Result<(), PortError> {
    let (stages, mut told) = unbounded_channel::<String>();
    let progress = Told {
        running: running.clone(),
        sheet: format!("sheet {n}"),
        stages,
    };
    let writes = running.clone();
    let puts_down = tokio::spawn(async move {
        while let Some(stage) = told.recv().await {
            if let Err(failure) = writes.progress(&stage).await {
                tracing::debug!(error = %failure, "a stage was not told");
            }
        }
    });
    let done = cutter.cut(order, &progress).await;
    drop(progress);
    if puts_down.await.is_err() {
        tracing::debug!("the last stages were not told");
    }
    done
}

/// What the machine says, as its asker is told it.
fn failed(error: PortError) -> Failure {
    match error {
        PortError::Cancelled => Failure::Busy,
        other => Failure::Standing(format!("{other}.")),
    }
}
