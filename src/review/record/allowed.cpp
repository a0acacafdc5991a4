// SPDX-License-Identifier: GPL-3.0-or-later
#include "review/record/allowed.h"

namespace jg {

Allowed allowedOn(const Athlete& a, Use use, Date today) {
    if (!a.consent) return Allowed::Silent;
    const Consent& c = *a.consent;
    if (c.takenBack && *c.takenBack <= today) return Allowed::TakenBack;
    if (c.until && *c.until < today) return Allowed::Ended;
    if (c.byGuardian && !a.isMinorOn(today)) return Allowed::GrownUp;
    if (!c.byGuardian && a.isMinorOn(today)) return Allowed::OwnWord;
    return c.allows(use) ? Allowed::Yes : Allowed::No;
}

namespace {

Message nameOf(Use use) {
    return msg(use == Use::Filming   ? "consent.filming"
               : use == Use::Showing ? "consent.showing"
                                     : "consent.model");
}

/// What ended a consent; empty while it stands.
Message endOf(const Athlete& a, Date today) {
    switch (allowedOn(a, Use::Filming, today)) {
    case Allowed::TakenBack:
        return msg("consent.taken-back-on", {{"date", WrittenDate{*a.consent->takenBack, DateStyle::Year}}});
    case Allowed::Ended:
        return msg("consent.ended-on", {{"date", WrittenDate{*a.consent->until, DateStyle::Year}}});
    case Allowed::GrownUp:
        return msg("consent.grown-up", {{"name", a.firstName}});
    case Allowed::OwnWord:
        return msg("consent.own-word", {{"name", a.firstName}});
    case Allowed::Yes:
    case Allowed::Silent:
    case Allowed::No:
        break;
    }
    return {};
}

} // namespace

Message whyNotAllowed(const Athlete& a, Use use, Date today) {
    const Message what = nameOf(use);
    switch (allowedOn(a, use, today)) {
    case Allowed::Yes:
        return {};
    case Allowed::Silent:
        return msg("consent.silent", {{"name", a.firstName}, {"what", what}});
    case Allowed::No:
        return msg("consent.no", {{"name", a.firstName}, {"what", what}});
    case Allowed::Ended:
    case Allowed::TakenBack:
    case Allowed::GrownUp:
    case Allowed::OwnWord:
        break;
    }
    return msg("consent.over", {{"name", a.firstName}, {"what", what}, {"how", endOf(a, today)}});
}

Message consentInWords(const Athlete& a, Date today) {
    if (!a.consent) return {};
    std::vector<Message> uses;
    for (const Use use : {Use::Filming, Use::Showing, Use::Model})
        if (a.consent->allows(use)) uses.push_back(nameOf(use));
    const Message what = uses.empty() ? msg("consent.nothing") : joined(ListStyle::And, std::move(uses));
    const Message end = endOf(a, today);
    if (!end.empty()) return msg("consent.was", {{"what", what}, {"by", a.consent->by}, {"how", end}});
    if (a.consent->until)
        return msg("consent.is-until", {{"what", what},
                                        {"by", a.consent->by},
                                        {"until", WrittenDate{*a.consent->until, DateStyle::Year}}});
    return msg("consent.is", {{"what", what}, {"by", a.consent->by}});
}

} // namespace jg
