//! What a route requires of who asks, as extractors: a member of any role, one who may change things, a lead.

use super::Auth;
use crate::error::Failure;
use crate::store::people::PersonRow;
use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use uuid::Uuid;

/// A member of a team, in whatever role: she may look.
#[derive(Clone, Debug)]
pub(crate) struct Member {
    pub(crate) person: PersonRow,
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
        self.person.team
    }

    /// Her name, as the history tells it.
    pub(crate) fn name(&self) -> &str {
        &self.person.name
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

impl<S: Send + Sync> FromRequestParts<S> for Member {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Member, Failure> {
        let auth = Auth::from_request_parts(parts, state).await.map_err(|(_, why)| Failure::Internal(why.to_owned()))?;
        auth.user.map(|person| Member { person }).ok_or(Failure::SignedOut)
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Maker {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Maker, Failure> {
        let member = Member::from_request_parts(parts, state).await?;
        if member.person.role == "guest" {
            return Err(Failure::NotAllowed("A guest may look and take away, not change. A lead of the team can make you a member."));
        }
        Ok(Maker(member))
    }
}

impl<S: Send + Sync> FromRequestParts<S> for Lead {
    type Rejection = Failure;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Lead, Failure> {
        let member = Member::from_request_parts(parts, state).await?;
        if member.person.role != "lead" {
            return Err(Failure::NotAllowed("Only a lead of the team may do this."));
        }
        Ok(Lead(member))
    }
}
