//! What follows from decisions: pure functions of one shape. Nothing that is derived is ever stored as a decision.

use super::Plan;
use super::digest::Digest;
use super::grounds::without_names;
use super::stations::Station;
use crate::Cancel;
use crate::fit::{
    self, Conflict, FitDecisions, Outcome, PhotoDecisions, Proposal, Request, SketchDecisions,
};
use crate::length::Unit;
use crate::sketch::Sketch;
use serde_json::Value;

/// A station's computation, from its own decisions and what the stations before came to.
pub trait Derive {
    /// Whose it is.
    const STATION: Station;
    /// One more whenever the same decisions may come to something else: what an older engine computed is computed again.
    const ENGINE: i32;
    /// What the stations before came to.
    type Before<'a>;
    /// What follows.
    type Outcome;

    /// Computes it for as long as somebody waits for it; `None` once it has been cancelled.
    ///
    /// # Errors
    /// The decisions that can't hold together: an answer, not a failure.
    fn derive(
        &self,
        before: Self::Before<'_>,
        cancel: &Cancel,
    ) -> Option<Result<Self::Outcome, Conflict>>;
}

impl Derive for SketchDecisions {
    const STATION: Station = Station::Sketch;
    const ENGINE: i32 = 1;
    type Before<'a> = ();
    /// The sketch as it stands on the page.
    type Outcome = Sketch;

    fn derive(&self, (): (), _: &Cancel) -> Option<Result<Sketch, Conflict>> {
        Some(Ok(self.sketch.oriented(self.turn, self.flip)))
    }
}

impl Derive for FitDecisions {
    const STATION: Station = Station::Fit;
    const ENGINE: i32 = 2;
    type Before<'a> = (Unit, &'a SketchDecisions, &'a PhotoDecisions);
    /// The chosen proposal: the best where none is chosen.
    type Outcome = Proposal;

    fn derive(
        &self,
        (unit, sketch, photos): Self::Before<'_>,
        cancel: &Cancel,
    ) -> Option<Result<Proposal, Conflict>> {
        let request = Request::of(unit, sketch.clone(), photos.clone(), self.clone());
        let outcome = fit::fit_while(&request, cancel)?;
        Some(match outcome {
            Outcome::Proposals(proposals) => proposals
                .into_iter()
                .next()
                .ok_or_else(Conflict::nothing_fits),
            Outcome::Conflict(conflict) => Err(conflict),
        })
    }
}

impl Plan {
    /// What the fit comes to.
    pub fn fitted(&self, cancel: &Cancel) -> Option<Result<Proposal, Conflict>> {
        let before = (self.unit, &self.sketch.decisions, &self.photos.decisions);
        self.fit.decisions.derive(before, cancel)
    }

    /// The same, for who waits for it to the end.
    ///
    /// # Errors
    /// The decisions that can't hold together.
    pub fn proposal(&self) -> Result<Proposal, Conflict> {
        self.fitted(&Cancel::default()).expect("nobody cancels it")
    }
}

/// The engine that computes layouts: what an older one computed is computed again.
pub const FIT_ENGINE: i32 = <FitDecisions as Derive>::ENGINE;

/// The digest of all that a plan's layout follows from: with one engine, one digest is one layout.
pub fn fit_digest(plan: &Value) -> Digest {
    let named = |station: Station, fields: &[&str]| -> Value {
        let section = plan
            .get(station.name())
            .and_then(Value::as_object)
            .map(without_names);
        let field = |name: &&str| Some(((*name).to_owned(), section.as_ref()?.get(*name)?.clone()));
        Value::Object(fields.iter().filter_map(field).collect())
    };
    Digest::of([
        plan.get("unit").unwrap_or(&Value::Null),
        &named(Station::Sketch, &SketchDecisions::FIELDS),
        &named(Station::Photos, &PhotoDecisions::FIELDS),
        &named(Station::Fit, &FitDecisions::FIELDS),
    ])
}
