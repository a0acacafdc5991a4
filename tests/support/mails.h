// SPDX-License-Identifier: GPL-3.0-or-later
// Mails as families send them, for what reads them.
#pragma once

#include "post/mail.h"

namespace jg::test {

/// A mail to the coach from an address, with films.
inline Mail mailFrom(const std::string& address, const std::string& text,
                     std::vector<Attachment> films = {}) {
    Mail m;
    m.fromName = "Ruth Merrick";
    m.fromAddress = address;
    m.toName = "Ilse Varnholt";
    m.toAddress = "ilse@example.org";
    m.subject = "Ludo's pitches";
    m.text = text;
    m.attachments = std::move(films);
    m.messageId = "m1@example.org";
    m.dateUnix = 1764072000;
    return m;
}

} // namespace jg::test
