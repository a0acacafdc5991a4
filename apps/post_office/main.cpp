// SPDX-License-Identifier: GPL-3.0-or-later
// post-office: the stand-in mail server with its window.
#include "apps/post_office/smtp_server.h"
#include "apps/post_office/stand_in_sender.h"
#include "apps/post_office/window.h"
#include "ui/kit/theme.h"
#include "words/words.h"

#include <QApplication>
#include <QDir>

#include <iostream>

namespace {

constexpr int kMorePorts = 20; // are tried where the first is taken and any will do

constexpr const char* kUse =
    "\n  post-office [--store DIR] [--port N] [--user NAME --password WORD] [--headless]"
    "\n              [--any-port] [--behind]"
    "\n  post-office --write FILE.eml --from ADDRESS [--name NAME] [--subject WORDS] [--text WORDS] "
    "[FILM...]\n";

int wrongUse(const QString& word) {
    std::cerr << "Wrong use: " << word.toStdString() << kUse;
    return 2;
}

/// The stand-in sender: a mail with films into a file.
int writeMail(const QStringList& words) {
    jg::StandInMail mail;
    mail.subject = "Pitches";
    for (qsizetype i = 0; i < words.size(); ++i) {
        const std::string next = words.value(i + 1).toStdString();
        if (words[i] == "--write")
            mail.to = next, ++i;
        else if (words[i] == "--from")
            mail.fromAddress = next, ++i;
        else if (words[i] == "--name")
            mail.fromName = next, ++i;
        else if (words[i] == "--subject")
            mail.subject = next, ++i;
        else if (words[i] == "--text")
            mail.text = next, ++i;
        else if (words[i].startsWith("--"))
            return wrongUse(words[i]);
        else
            mail.films.emplace_back(words[i].toStdString());
    }
    if (mail.to.empty()) return wrongUse("--write");
    const jg::Status written = jg::writeStandInMail(mail);
    if (!written) std::cerr << jg::english()(written.error().text) << "\n";
    return written ? 0 : 1;
}

} // namespace

int main(int argc, char** argv) {
    for (int i = 1; i < argc; ++i)
        if (qstrcmp(argv[i], "--write") == 0) {
            const QCoreApplication app(argc, argv);
            return writeMail(app.arguments().mid(1));
        }
    // --headless needs no screen: it is looked for before the application exists.
    for (int i = 1; i < argc; ++i)
        if (qstrcmp(argv[i], "--headless") == 0) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    QString store = QDir::homePath() + "/post-office", user, password;
    quint16 port = 2525;
    bool headless = false, anyPort = false, behind = false;
    const QStringList words = app.arguments().mid(1);
    for (qsizetype i = 0; i < words.size(); ++i) {
        const QString next = words.value(i + 1);
        if (words[i] == "--headless")
            headless = true;
        else if (words[i] == "--any-port")
            anyPort = true;
        else if (words[i] == "--behind")
            behind = true;
        else if (words[i] == "--store" && !next.isEmpty())
            store = next, ++i;
        else if (words[i] == "--port" && next.toUInt() < 65536)
            port = static_cast<quint16>(next.toUInt()), ++i;
        else if (words[i] == "--user" && !next.isEmpty())
            user = next, ++i;
        else if (words[i] == "--password" && !next.isEmpty())
            password = next, ++i;
        else
            return wrongUse(words[i]);
    }
    jg::SmtpServer server(store);
    server.requireLogin(user, password);
    bool listens = server.listen(port);
    for (int more = 1; !listens && anyPort && more < kMorePorts; ++more)
        listens = server.listen(static_cast<quint16>(port + more));
    if (!listens) {
        std::cerr << "Port " << port << " can't be used (" << server.errorText().toStdString()
                  << "). Another post office may be open.\n";
        return 1;
    }
    std::cout << "listening on 127.0.0.1:" << server.port() << std::endl;
    if (headless) return app.exec();
    jg::ui::followSystemText();
    jg::ui::dress(app);
    jg::PostOfficeWindow window(store, server.port());
    QObject::connect(&server, &jg::SmtpServer::received, &window, [&window] {
        window.refresh();
        window.showNormal();
        window.raise();
        window.activateWindow();
    });
    behind ? window.showMinimized() : window.show();
    return app.exec();
}
