//! What the API says of people and teams.

use crate::documents::words::HandDoc;
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// Who is signed in; all but `demo` is left out when nobody is.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct MeView {
    /// Whether the demo is served: then one click signs in.
    pub(crate) demo: bool,
    /// Her id.
    pub(crate) id: Option<Uuid>,
    /// What she signs in with.
    pub(crate) account: Option<String>,
    /// Her name, as the history tells it.
    pub(crate) name: Option<String>,
    /// Her role in the team she is in now.
    pub(crate) role: Option<String>,
    /// The team she is in now.
    pub(crate) team: Option<TeamView>,
    /// All her teams.
    pub(crate) teams: Vec<TeamView>,
    /// What she starts every page with.
    pub(crate) defaults: DefaultsDoc,
}

/// A team, to one of its people.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TeamView {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// Her role there.
    pub(crate) role: String,
}

/// What a maker starts every page with; what is left out is what most makers work by.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
pub(crate) struct DefaultsDoc {
    /// `in` or `mm`, also of the lengths here.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) unit: Option<String>,
    /// The ruler step; 0 for none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) step: Option<f64>,
    /// Along the page's edges.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) margin: Option<f64>,
    /// Either side of the fold.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) fold_guard: Option<f64>,
    /// A mat's visible border.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) border: Option<f64>,
    /// `system`, `light` or `dark`
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) theme: Option<String>,
    /// `on` or `off`: whether single letters and digits do anything on a page
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) letter_keys: Option<String>,
    /// Her hands.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) hands: Option<Vec<HandDoc>>,
    /// Checks of a page that she never wants, by name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) checks_off: Option<Vec<String>>,
}

/// What she signs in with.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct SignIn {
    /// Her account.
    pub(crate) account: String,
    /// Her password.
    pub(crate) password: String,
}

/// Which team to go to.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TeamChoice {
    /// One of hers.
    pub(crate) team: Uuid,
}

/// Her name and defaults.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PersonChange {
    /// Her name.
    pub(crate) name: String,
    /// All of her defaults.
    pub(crate) defaults: DefaultsDoc,
}

/// Her old password and the new one.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewPassword {
    /// The one she signs in with now.
    pub(crate) old: String,
    /// The one to come.
    pub(crate) new: String,
}

/// A role in a team.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub(crate) enum Role {
    /// May also invite, change roles and take out.
    Lead,
    /// May make and change.
    Member,
    /// May look.
    Guest,
}

impl Role {
    /// Its name in the database.
    pub(crate) const fn name(self) -> &'static str {
        match self {
            Role::Lead => "lead",
            Role::Member => "member",
            Role::Guest => "guest",
        }
    }
}

/// One of a team's people.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct MemberView {
    /// Her id.
    pub(crate) id: Uuid,
    /// What she signs in with.
    pub(crate) account: String,
    /// Her name.
    pub(crate) name: String,
    /// Her role.
    pub(crate) role: String,
}

/// A team with its people.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct TeamPeople {
    /// Its id.
    pub(crate) id: Uuid,
    /// Its name.
    pub(crate) name: String,
    /// Leads first.
    pub(crate) people: Vec<MemberView>,
    /// For a lead: the invitations that still work.
    pub(crate) invites: Vec<InviteView>,
}

/// An invitation.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct InviteView {
    /// Its id.
    pub(crate) id: Uuid,
    /// The role it gives.
    pub(crate) role: String,
    /// Who made it.
    pub(crate) made_by: String,
    /// Until when it works.
    #[serde(with = "time::serde::rfc3339")]
    #[schema(value_type = String, format = DateTime)]
    pub(crate) expires_at: OffsetDateTime,
    /// Its address on this server; only told when it is made.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) link: Option<String>,
}

/// An invitation to come.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewInvite {
    /// The role it gives.
    pub(crate) role: Role,
}

/// A member's new role.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct RoleChange {
    /// The role.
    pub(crate) role: Role,
}

/// A new name.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NameChange {
    /// The name.
    pub(crate) name: String,
}

/// What a link that works once is for.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct LinkView {
    /// The team it leads into; none for the first lead, who names her own.
    pub(crate) team: Option<String>,
    /// The role it gives.
    pub(crate) role: String,
    /// Who made it.
    pub(crate) made_by: String,
}

/// Whose password a link sets.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PasswordLinkView {
    /// What she signs in with.
    pub(crate) account: String,
    /// Her name.
    pub(crate) name: String,
    /// Who made the link.
    pub(crate) made_by: String,
}

/// A new password, set by a link.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct PasswordByLink {
    /// The password to come.
    pub(crate) password: String,
}

/// Who joins by a link.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
pub(crate) struct NewPerson {
    /// What she will sign in with.
    pub(crate) account: String,
    /// Her name.
    pub(crate) name: String,
    /// Her password.
    pub(crate) password: String,
    /// The name of her team, for the first lead.
    pub(crate) team: Option<String>,
}
