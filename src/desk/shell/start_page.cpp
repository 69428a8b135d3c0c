#include "desk/shell/start_page.hpp"

#include "desk/widgets/drawing_painter.hpp"
#include "tape/ghost.hpp"

#include <QAction>
#include <QButtonGroup>
#include <QDir>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace gorvet::desk {

namespace {

constexpr int card_width = 300;
constexpr int picture_height = 110;

QPixmap kindPicture(build::FrameKind kind, const Theme& theme, QSize size, double sharp) {
    QPixmap picture(size * sharp);
    picture.setDevicePixelRatio(sharp);
    picture.fill(Qt::transparent);
    QPainter painter(&picture);
    painter.setRenderHint(QPainter::Antialiasing);
    paintItems(painter, sheet::flatten(tape::ghostPicture(tape::ghostOf(kind), size.width(), size.height(), theme.format())),
               theme);
    return picture;
}

/// "today 14:02", "27 November".
QString when(const QDateTime& at) {
    if (!at.isValid()) return {};
    const QDate today = QDate::currentDate();
    if (at.date() == today) return StartPage::tr("today %1").arg(at.toString("HH:mm"));
    return QLocale::c().toString(at.date(), at.date().year() == today.year() ? "d MMMM" : "d MMMM yyyy");
}

} // namespace

StartPage::StartPage(Recent& recent, const QList<QAction*>& acts, QWidget* parent)
    : QWidget(parent), recent_(recent), pages_(new QStackedWidget) {
    setObjectName("startPage");
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    auto* scroll = new QScrollArea; // with large text in a small window it is higher than the screen
    scroll->setObjectName("startScroll");
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(pages_);
    whole->addWidget(scroll);
    pages_->addWidget(buildFirst(acts));
    pages_->addWidget(buildQuestions());
}

QWidget* StartPage::buildFirst(const QList<QAction*>& acts) {
    auto* first = new QWidget;
    auto* row = new QHBoxLayout(first);
    row->setContentsMargins(48, 40, 48, 32);
    row->setSpacing(48);
    auto* begin = new QVBoxLayout;
    begin->setContentsMargins(0, 0, 0, 0);
    begin->setSpacing(12);
    auto* hello = new QLabel(tr("A body, a chassis, and a tape."));
    hello->setObjectName("welcomeSentence");
    hello->setWordWrap(true);
    heads_ << hello;
    auto* what = new QLabel(tr("Everything you enter is kept at once, in one file a build. There is nothing to save."));
    what->setProperty("second", true);
    what->setWordWrap(true);
    begin->addWidget(hello);
    begin->addWidget(what);
    begin->addSpacing(12);
    for (QAction* act : acts) {
        auto* button = new QPushButton(act->text());
        button->setObjectName("welcome_" + act->objectName());
        button->setMinimumWidth(280);
        button->setProperty("tall", true);
        button->setProperty("lead", act == acts.front());
        connect(button, &QPushButton::clicked, act, &QAction::trigger);
        begin->addWidget(button);
    }
    begin->addStretch(1);
    auto* left = new QWidget;
    left->setMaximumWidth(620);
    left->setLayout(begin);
    row->addWidget(left, 2);
    before_ = new QWidget;
    auto* column = new QVBoxLayout(before_);
    column->setContentsMargins(0, 0, 0, 0);
    auto* title = new QLabel(tr("Go on with"));
    heads_ << title;
    column->addWidget(title);
    cards_ = new QGridLayout;
    cards_->setSpacing(16);
    column->addLayout(cards_);
    column->addStretch(1);
    row->addWidget(before_, 3);
    picture_ = new QLabel; // as long as there is nothing to go on with
    picture_->setAccessibleName(tr("a frame from above"));
    picture_->setAlignment(Qt::AlignTop | Qt::AlignHCenter);
    picture_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    row->addWidget(picture_, 3);
    return first;
}

QWidget* StartPage::buildQuestions() {
    auto* questions = new QWidget;
    auto* column = new QVBoxLayout(questions);
    column->setContentsMargins(48, 32, 48, 24);
    column->setSpacing(10);
    const auto ask = [&](const QString& text) {
        auto* label = new QLabel(text);
        heads_ << label;
        column->addWidget(label);
    };
    ask(tr("What kind of frame is under it?"));
    column->addLayout(buildKinds());
    column->addSpacing(8);
    ask(tr("What are they called?"));
    auto* names = new QHBoxLayout;
    names->setSpacing(16);
    const auto field = [&](const char* object, const QString& label, const QString& hint) {
        auto* box = new QVBoxLayout;
        box->setSpacing(2);
        auto* words = new QLabel(label);
        auto* edit = new QLineEdit;
        edit->setObjectName(object);
        edit->setAccessibleName(label);
        edit->setPlaceholderText(hint);
        edit->setMinimumHeight(48);
        edit->setMaxLength(80);
        words->setBuddy(edit);
        box->addWidget(words);
        box->addWidget(edit);
        names->addLayout(box);
        connect(edit, &QLineEdit::textChanged, this, &StartPage::follow);
        return edit;
    };
    body_ = field("newBody", tr("the body"), tr("its make and year, as you call it"));
    donor_ = field("newDonor", tr("the donor, or its chassis"), tr("the same"));
    column->addLayout(names);
    column->addSpacing(8);
    ask(tr("What does your tape read?"));
    auto* units = new QHBoxLayout;
    units_ = new QButtonGroup(this);
    for (const auto& [step, name] :
         {std::pair{units::LengthStep::Mm01, tr("millimetres")}, std::pair{units::LengthStep::Inch16, tr("inches")}}) {
        auto* button = new QPushButton(name);
        button->setObjectName(step == units::LengthStep::Mm01 ? "newMm" : "newInch");
        button->setCheckable(true);
        button->setMinimumWidth(180);
        button->setProperty("tall", true);
        units_->addButton(button, static_cast<int>(step));
        units->addWidget(button);
    }
    units_->button(static_cast<int>(units::LengthStep::Mm01))->setChecked(true);
    auto* mixed = new QLabel(tr("A reading may be typed in either at any time, with its unit."));
    mixed->setProperty("second", true);
    mixed->setWordWrap(true);
    units->addWidget(mixed, 1);
    column->addLayout(units);
    column->addStretch(1);
    column->addLayout(buildFoot());
    return questions;
}

QLayout* StartPage::buildKinds() {
    auto* kinds = new QGridLayout;
    kinds->setSpacing(8);
    kinds_ = new QButtonGroup(this);
    const std::pair<build::FrameKind, QString> all[] = {{build::FrameKind::Ladder, tr("ladder")},
                                                        {build::FrameKind::Perimeter, tr("perimeter")},
                                                        {build::FrameKind::SpinePlatform, tr("spine and platform")},
                                                        {build::FrameKind::BoltedSubframe, tr("bolted subframes")},
                                                        {build::FrameKind::Monocoque, tr("monocoque")},
                                                        {build::FrameKind::SpaceFrame, tr("space frame of tube")}};
    int place = 0;
    for (const auto& [kind, name] : all) {
        auto* button = new QToolButton;
        button->setText(name);
        button->setObjectName(QString("kind_%1").arg(QString::fromUtf8(build::word(kind).data())));
        button->setAccessibleName(name);
        button->setCheckable(true);
        button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
        button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        kinds_->addButton(button, static_cast<int>(kind));
        kinds->addWidget(button, place / 3, place % 3);
        ++place;
    }
    kinds_->button(static_cast<int>(build::FrameKind::Ladder))->setChecked(true);
    return kinds;
}

QLayout* StartPage::buildFoot() {
    kept_as_ = new QLabel;
    kept_as_->setObjectName("newKeptAs");
    kept_as_->setProperty("second", true);
    kept_as_->setWordWrap(true);
    auto* foot = new QHBoxLayout;
    foot->addWidget(kept_as_, 1);
    const auto button = [&](const QString& text, const char* object, auto&& use) {
        auto* b = new QPushButton(text);
        b->setObjectName(object);
        b->setProperty("tall", true);
        connect(b, &QPushButton::clicked, this, use);
        foot->addWidget(b);
        return b;
    };
    button(tr("Back"), "newBack", [this] { leaveQuestions(); });
    button(tr("Keep it elsewhere…"), "newElsewhere", [this] { emit begun(answers(), {}); });
    auto* go = button(tr("Begin"), "newBegin",
                      [this] { emit begun(answers(), recent_.freePath(QString::fromStdString(answers().name))); });
    go->setProperty("lead", true);
    go->setMinimumWidth(180);
    for (QLineEdit* edit : {body_, donor_}) connect(edit, &QLineEdit::returnPressed, go, &QPushButton::click);
    return foot;
}

build::Settings StartPage::answers() const {
    build::Settings s;
    s.frame_kind = static_cast<build::FrameKind>(kinds_->checkedId());
    s.length_step = static_cast<units::LengthStep>(units_->checkedId());
    const QString body = body_->text().simplified();
    const QString donor = donor_->text().simplified();
    if (!body.isEmpty()) s.body_name = body.toStdString();
    if (!donor.isEmpty()) s.chassis_name = donor.toStdString();
    const QString name = body.isEmpty() ? donor : donor.isEmpty() ? body : tr("%1 on %2").arg(body, donor);
    if (!name.isEmpty()) s.name = name.left(100).toStdString();
    return s;
}

void StartPage::follow() {
    const QString path = recent_.freePath(QString::fromStdString(answers().name));
    QString shown = path;
    if (const QString home = QDir::homePath(); home.size() > 1 && shown.startsWith(home + '/'))
        shown.replace(0, home.size(), "~");
    kept_as_->setText(tr("It is kept as %1").arg(shown));
}

void StartPage::askForNew() {
    body_->clear();
    donor_->clear();
    follow();
    pages_->setCurrentIndex(1);
    body_->setFocus();
}

bool StartPage::leaveQuestions() {
    if (pages_->currentIndex() == 0) return false;
    pages_->setCurrentIndex(0);
    return true;
}

void StartPage::setTheme(const Theme& theme) {
    theme_ = theme;
    for (QLabel* head : heads_) head->setStyleSheet(QString("font-size: %1px").arg(theme.px(24)));
    for (QAbstractButton* button : kinds_->buttons()) {
        const QSize size(theme.px(190), theme.px(74));
        button->setIcon(kindPicture(static_cast<build::FrameKind>(kinds_->id(button)), theme, size, devicePixelRatioF()));
        button->setIconSize(size);
    }
    refresh();
}

void StartPage::refresh() {
    while (QLayoutItem* item = cards_->takeAt(0)) {
        if (item->widget()) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    const auto builds = recent_.builds();
    before_->setVisible(!builds.isEmpty());
    picture_->setVisible(builds.isEmpty());
    if (builds.isEmpty())
        picture_->setPixmap(
            kindPicture(build::FrameKind::Ladder, theme_, QSize(theme_.px(640), theme_.px(280)), devicePixelRatioF()));
    constexpr qsizetype shown = 6;
    for (qsizetype i = 0; i < std::min(shown, builds.size()); ++i) {
        const Recent::Build& b = builds[i];
        auto* card = new QToolButton;
        card->setObjectName(QString("recent%1").arg(i));
        card->setAccessibleName(tr("open %1").arg(b.name));
        card->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
        card->setToolTip(QDir::toNativeSeparators(b.path));
        const QString name = card->fontMetrics().elidedText(b.name, Qt::ElideMiddle, theme_.px(card_width - 40));
        card->setText(name + "\n" + when(b.left));
        QPixmap picture = QPixmap::fromImage(recent_.picture(b.path, theme_.ground()));
        const QSize size(theme_.px(card_width - 30), theme_.px(picture_height));
        if (!picture.isNull()) card->setIcon(picture);
        card->setIconSize(picture.isNull() ? QSize(1, 1) : size);
        card->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        card->setMinimumHeight(theme_.px(picture_height + 66));
        connect(card, &QToolButton::clicked, this, [this, path = b.path] { emit opened(path); });
        cards_->addWidget(card, static_cast<int>(i / 2), static_cast<int>(i % 2));
    }
}

} // namespace gorvet::desk
