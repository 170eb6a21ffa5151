//! What a route requires of who asks, as extractors: a person, a member of any role, one who may change things, a lead.

use crate::auth::Auth;
use crate::features::people::store::people;
use crate::features::people::store::people::{PersonRow, TeamRow};
use crate::http::error::Failure;
use crate::state::App;
use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use uuid::Uuid;

/// The header in which a tab names the team it works in. What can send no header (an image, a download) says `?team=`.
pub(crate) const TEAM_HEADER: &str = "metrosk-team";

/// Somebody who is signed in, be she in a team or not.
#[derive(Clone, Debug)]
pub(crate) struct Person(pub(crate) PersonRow);

/// A member of a team, in whatever role: she may look.
#[derive(Clone, Debug)]
pub(crate) struct Member {
    pub(crate) person: PersonRow,
    pub(crate) team: TeamRow,
}

/// A member who may change the team's things: a guest may not.
#[derive(Clone, Debug)]
pub(crate) struct Maker(pub(crate) Member);

/// A lead of the team.
#[derive(Clone, Debug)]
pub(crate) struct Lead(pub(crate) Member);

impl Member {
    /// The team that everything asked for must belong to.
    pub(crate) fn team(&self) -> Uuid {
        self.team.id
    }

    /// Her name, as the history tells it.
    pub(crate) fn name(&self) -> &str {
        &self.person.name
    }

    /// Whether she leads the team.
    pub(crate) fn leads(&self) -> bool {
        self.team.role == "lead"
    }
}

impl std::ops::Deref for Maker {
    type Target = Member;
    fn deref(&self) -> &Member {
        &self.0
    }
}

impl std::ops::Deref for Lead {
    type Target = Member;
    fn deref(&self) -> &Member {
        &self.0
    }
}

/// The team that a request names; what is no id names none.
fn named_team(parts: &Parts) -> Option<Uuid> {
    let header = parts.headers.get(TEAM_HEADER).and_then(|v| v.to_str().ok());
    let query = || {
        parts
            .uri
            .query()?
            .split('&')
            .find_map(|pair| pair.strip_prefix("team="))
    };
    Uuid::parse_str(header.or_else(query)?).ok()
}

impl FromRequestParts<App> for Person {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Person, Failure> {
        let auth = Auth::from_request_parts(parts, app)
            .await
            .map_err(|(_, why)| Failure::Internal(why.to_owned()))?;
        let person = auth.user.ok_or(Failure::SignedOut)?;
        match named_team(parts) {
            Some(team) if person.team != Some(team) => Ok(Person(
                people::find(&app.pool, person.id, Some(team))
                    .await?
                    .ok_or(Failure::SignedOut)?,
            )),
            _ => Ok(Person(person)),
        }
    }
}

impl FromRequestParts<App> for Member {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Member, Failure> {
        let Person(person) = Person::from_request_parts(parts, app).await?;
        let team = person.membership().ok_or(Failure::NoTeam)?;
        // A tab that still stands in a team she has left must not be answered with another one's things.
        match named_team(parts) {
            Some(named) if named != team.id => Err(Failure::NoTeam),
            _ => Ok(Member { person, team }),
        }
    }
}

impl FromRequestParts<App> for Maker {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Maker, Failure> {
        let member = Member::from_request_parts(parts, app).await?;
        if member.team.role == "guest" {
            return Err(Failure::NotAllowed(
                "A guest may look and take away, not change. A lead of the team can make you a member.",
            ));
        }
        Ok(Maker(member))
    }
}

impl FromRequestParts<App> for Lead {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Lead, Failure> {
        let member = Member::from_request_parts(parts, app).await?;
        if !member.leads() {
            return Err(Failure::NotAllowed("Only a lead of the team may do this."));
        }
        Ok(Lead(member))
    }
}
