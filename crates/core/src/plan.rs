//! A page's plan: one document that holds everything decided so far. For now that is the fit and the stations' marks.

mod defaults;
mod stations;

pub use defaults::Defaults;
pub use stations::{Progress, State, Station, check_marks, progress};

use crate::Cancel;
use crate::document::{Finding, Invalid};
use crate::fit::{self, Back, Outcome, Pin, Proposal, Request};
use crate::layout::Layout;
use crate::length::{Length, Unit};
use crate::sketch::Sketch;
use serde_json::{Value, json};

/// The `format` of a plan.
pub const FORMAT: &str = "metrosk-plan/1";

/// Reads a plan's fit request.
///
/// # Errors
/// All that breaks the format, each with its JSON path.
pub fn fit_of(plan: &Value) -> Result<Request, Invalid> {
    if plan.get("format").and_then(Value::as_str) != Some(FORMAT) {
        let found = plan
            .get("format")
            .map_or_else(|| "nothing".to_owned(), Value::to_string);
        return Err(Invalid::one("format", found, FORMAT));
    }
    check_marks(plan)?;
    let fit = plan.get("fit").unwrap_or(&Value::Null);
    Request::from_json(fit).map_err(|invalid| Invalid {
        findings: invalid
            .findings
            .into_iter()
            .map(|f| Finding {
                path: format!("fit.{}", f.path).trim_end_matches('.').to_owned(),
                ..f
            })
            .collect(),
    })
}

/// What a plan comes to: the chosen proposal (the best where none is chosen), or why there is none.
///
/// # Errors
/// When the plan breaks its format.
pub fn proposal_of(plan: &Value) -> Result<Result<Proposal, String>, Invalid> {
    Ok(proposal_while(plan, &Cancel::default())?.expect("nobody cancels it"))
}

/// The same, for as long as somebody waits for it; `None` once it has been cancelled.
///
/// # Errors
/// When the plan breaks its format.
pub fn proposal_while(
    plan: &Value,
    cancel: &Cancel,
) -> Result<Option<Result<Proposal, String>>, Invalid> {
    Ok(
        fit::fit_while(&fit_of(plan)?, cancel).map(|outcome| match outcome {
            Outcome::Proposals(proposals) => proposals
                .into_iter()
                .next()
                .ok_or_else(|| "Nothing came of it.".to_owned()),
            Outcome::Conflict(conflict) => Err(conflict.text),
        }),
    )
}

/// A plan made one for the back of a front: on the front's page, with what shows through held in place.
pub fn with_back(mut plan: Value, front: &Layout, back: &Back) -> Value {
    let unit = if plan["fit"]["unit"] == "mm" {
        Unit::Millimetre
    } else {
        Unit::Inch
    };
    let number = |l: Length| crate::document::length_number(l, unit);
    let page = front.canvas.page;
    plan["fit"]["target"]["page"] = json!({"w": number(page.w), "h": number(page.h)});
    plan["fit"]["target"]["pages"] = json!(1);
    plan["fit"]["sketch"] = back.sketch.to_json();
    let pin = |p: &Pin| json!({"block": p.block, "edge": p.edge.name(), "at": number(p.at)});
    plan["fit"]["pins"] = back.pins.iter().map(pin).collect();
    plan
}

/// The plan a page starts with: the sketch on a page of its own size, with the maker's own margin, fold guard and step.
pub fn start(sketch: &Sketch, defaults: &Defaults) -> Value {
    let unit = defaults.unit.unwrap_or(sketch.unit);
    let number = |l: Length| crate::document::length_number(l, unit);
    let page = sketch.canvas.page;
    let target = json!({
        "page": {"w": number(page.w), "h": number(page.h)}, "pages": sketch.canvas.pages,
        "margin": number(defaults.margin_in(unit)), "fold_guard": number(defaults.fold_guard_in(unit)),
    });
    json!({"format": FORMAT, "fit": {
        "format": "metrosk-fit/1", "unit": unit.name(), "sketch": sketch.to_json(), "target": target,
        "snap": number(defaults.step_in(unit)), "pins": [],
    }})
}
