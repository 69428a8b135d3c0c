#include "desk/view3d/scene_pane.hpp"

#include "desk/view3d/scene_view.hpp"

#include <QCheckBox>
#include <QEvent>
#include <QFrame>
#include <QGridLayout>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QMouseEvent>
#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QPushButton>
#include <QSignalBlocker>
#include <QSlider>
#include <QStyle>
#include <cmath>

namespace gorvet::desk {

namespace {

bool openGlWorks() {
    QSurfaceFormat format;
    format.setVersion(3, 3);
    format.setProfile(QSurfaceFormat::CoreProfile);
    QOpenGLContext context;
    context.setFormat(format);
    if (!context.create()) return false;
    QOffscreenSurface surface;
    surface.setFormat(context.format());
    surface.create();
    if (!surface.isValid() || !context.makeCurrent(&surface)) return false;
    const bool good = context.format().version() >= std::pair(3, 3);
    context.doneCurrent();
    return good;
}

} // namespace

ScenePane::ScenePane(QWidget* parent) : QWidget(parent) {
    setObjectName("scenePane");
    missing_ = new QLabel(
        tr("This system shows no 3-D pictures (OpenGL 3.3 is missing). All figures, findings and the cut map work without them."),
        this);
    missing_->setObjectName("sceneMissing");
    missing_->setAlignment(Qt::AlignCenter);
    missing_->setWordWrap(true);
    words_ = new QLabel(this);
    words_->setObjectName("sceneWords");
    words_->setProperty("second", true);
    words_->setWordWrap(true);
    words_->hide();
    const bool can = !qEnvironmentVariableIsSet("GORVET_NO_OPENGL") && QGuiApplication::platformName() != "offscreen";
    if (can) {
        missing_->hide();
        view_ = new SceneView(this);
        edge_ = new QFrame(this);
        edge_->setObjectName("sceneEdge");
        rows_ = new QGridLayout(edge_);
        rows_->setContentsMargins(0, 0, 0, 0);
        rows_->setVerticalSpacing(2);
        rows_->setHorizontalSpacing(10);
        views_ = buildEdge();
        more_ = new QWidget;
        auto* more = new QHBoxLayout(more_);
        more->setContentsMargins(0, 0, 0, 0);
        more->setSpacing(10);
        buildLayers();
        buildSection();
        fold_ = new QPushButton;
        fold_->setObjectName("sceneFold");
        fold_->setProperty("key", true);
        fold_->setToolTip(tr("the picture without its buttons"));
        fold_->setMinimumHeight(40);
        connect(fold_, &QPushButton::clicked, this, [this] {
            folded_by_hand_ = true;
            fold(!views_->isHidden());
        });
        fold(false);
    }
}

QWidget* ScenePane::controls() const { return edge_; }

/// From where one looks.
QWidget* ScenePane::buildEdge() {
    auto* views = new QWidget;
    auto* row = new QHBoxLayout(views);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(3);
    for (const auto& [label, name, from] : {std::tuple{tr("from the left"), "view_left", ViewFrom::Left},
                                            std::tuple{tr("from above"), "view_above", ViewFrom::Above},
                                            std::tuple{tr("from behind"), "view_behind", ViewFrom::Behind},
                                            std::tuple{tr("from underneath"), "view_underneath", ViewFrom::Underneath},
                                            std::tuple{tr("from the corner"), "view_corner", ViewFrom::Corner}}) {
        auto* button = new QPushButton(label);
        button->setObjectName(name);
        button->setProperty("key", true);
        button->setMinimumHeight(40);
        button->setFocusPolicy(Qt::TabFocus);
        connect(button, &QPushButton::clicked, this, [this, v = from] {
            if (view_) view_->lookFrom(v);
        });
        row->addWidget(button);
    }
    return views;
}

void ScenePane::buildLayers() {
    for (const auto& [label, name, layer] :
         {std::tuple{tr("body"), "layer_body", SceneView::Body}, std::tuple{tr("chassis"), "layer_chassis", SceneView::Chassis},
          std::tuple{tr("new steel"), "layer_new_steel", SceneView::NewSteel},
          std::tuple{tr("to remove"), "layer_to_remove", SceneView::ToRemove}}) {
        auto* box = new QCheckBox(label);
        box->setObjectName(name);
        box->setChecked(true);
        box->setMinimumHeight(40);
        connect(box, &QCheckBox::toggled, this, [this, l = layer](bool on) {
            if (view_) view_->setShown(l, on);
        });
        more_->layout()->addWidget(box);
    }
}

void ScenePane::buildSection() {
    section_on_ = new QCheckBox(tr("cut open at"));
    section_on_->setObjectName("sectionOn");
    section_on_->setMinimumHeight(40);
    section_ = new QSlider(Qt::Horizontal);
    section_->setObjectName("sectionStation");
    section_->setAccessibleName(tr("station of the section"));
    section_->setMinimumHeight(40);
    section_->setRange(-1000, 4000);
    section_->setValue(1300);
    section_->setPageStep(50);
    station_ = new QLabel;
    station_->setMinimumWidth(80);
    more_->layout()->addWidget(section_on_);
    cut_ = new QWidget;
    auto* row = new QHBoxLayout(cut_);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(section_, 1);
    row->addWidget(station_);
    time_ = new QSlider(Qt::Horizontal);
    time_->setObjectName("sceneTime");
    time_->setAccessibleName(tr("the moment that is shown"));
    time_->setMinimumHeight(40);
    time_->setPageStep(1);
    connect(time_, &QSlider::valueChanged, this, &ScenePane::timeMoved);
    for (QSlider* slider : {section_, time_}) slider->installEventFilter(this);
    const auto set = [this] {
        station_->setText(section_on_->isChecked() && view_ ? view_->length(section_->value()) : QString());
        if (view_) view_->setSection(section_on_->isChecked() ? std::optional<double>(section_->value()) : std::nullopt);
    };
    connect(section_on_, &QCheckBox::toggled, this, [this, set] {
        arrange();
        set();
    });
    connect(section_, &QSlider::valueChanged, this, [this, set] {
        if (section_on_->isChecked())
            set();
        else
            section_on_->setChecked(true);
    });
}

void ScenePane::setTimes(int count, int at) {
    if (!view_) return;
    const QSignalBlocker quiet(time_);
    time_->setRange(0, std::max(0, count - 1));
    time_->setValue(at);
    if (time_->property("on").toBool() == (count > 0)) return;
    time_->setProperty("on", count > 0);
    arrange();
}

void ScenePane::fold(bool away) {
    views_->setVisible(!away);
    more_->setVisible(!away);
    fold_->setText(away ? tr("views and layers") : tr("fold"));
    arrange();
}

void ScenePane::showEvent(QShowEvent* event) {
    // asked when it is first wanted, not when the program starts
    if (view_ && !asked_ && !openGlWorks()) {
        missing_->show();
        view_->hide();
        view_->deleteLater();
        view_ = nullptr;
        edge_->hide();
        arrange();
    }
    asked_ = true;
    QWidget::showEvent(event);
}

void ScenePane::setTheme(const Theme& theme) {
    if (!view_) return;
    view_->setTheme(theme);
    arrange();
}

void ScenePane::standUnder(QWidget* head) {
    head_ = head;
    head_->installEventFilter(this);
    arrange();
}

bool ScenePane::eventFilter(QObject* who, QEvent* event) {
    if (who == head_ && event->type() == QEvent::Resize) arrange();
    // a tap beside the handle goes there, not a page towards it
    if (auto* slider = qobject_cast<QSlider*>(who); slider && event->type() == QEvent::MouseButtonPress) {
        const auto* press = static_cast<QMouseEvent*>(event);
        constexpr int handle = 14;
        const int at = QStyle::sliderValueFromPosition(slider->minimum(), slider->maximum(), press->pos().x() - handle / 2,
                                                       slider->width() - handle);
        const int on =
            QStyle::sliderPositionFromValue(slider->minimum(), slider->maximum(), slider->value(), slider->width() - handle);
        if (press->button() == Qt::LeftButton && std::abs(press->pos().x() - handle / 2 - on) > handle) {
            slider->setValue(at);
            return true;
        }
    }
    return QWidget::eventFilter(who, event);
}

/// Layers beside the views where there is room, else below them; the station of a section has a row of its own.
void ScenePane::arrange() {
    missing_->setGeometry(rect().adjusted(32, 0, -32, 0));
    if (!view_) return;
    view_->setGeometry(rect());
    for (QWidget* w : {views_, more_, cut_, static_cast<QWidget*>(time_), static_cast<QWidget*>(fold_)}) rows_->removeWidget(w);
    fold_->ensurePolished();
    const int wide = width() - 56, gaps = 2 * rows_->horizontalSpacing();
    const bool two = views_->sizeHint().width() + more_->sizeHint().width() + fold_->sizeHint().width() + gaps > wide;
    const bool folded = views_->isHidden();
    cut_->setVisible(!folded && section_on_->isChecked());
    int rows = two ? 2 : 1;
    rows_->addWidget(views_, 0, 0);
    rows_->addWidget(more_, two ? 1 : 0, two ? 0 : 1, 1, two ? 3 : 1, Qt::AlignLeft);
    rows_->addWidget(fold_, 0, 2, Qt::AlignRight);
    rows_->addWidget(cut_, rows, 0, 1, 3);
    rows_->setColumnStretch(1, 1);
    if (section_on_->isChecked()) ++rows;
    const bool timed = time_->property("on").toBool();
    time_->setVisible(!folded && timed);
    rows_->addWidget(time_, rows, 0, 1, 3);
    if (timed) ++rows;
    const int row = std::max(fold_->sizeHint().height(), 40), head = head_ ? head_->height() : 0;
    const int open = rows * row + (rows - 1) * rows_->verticalSpacing();
    // where they would leave less than half to the picture they are away until somebody wants them
    if (const bool too_high = 2 * (height() - head - open) < height(); !folded_by_hand_ && too_high != folded)
        return fold(too_high);
    const int high = folded ? row : open;
    const int own = folded ? fold_->sizeHint().width() + gaps : wide;
    edge_->setGeometry(width() - 24 - own, height() - high - 4, own, high);
    const int words = words_->isHidden() ? 0 : words_->heightForWidth(width() - 64) + 4;
    words_->setGeometry(32, height() - high - 6 - words, width() - 64, words);
    for (QWidget* w : {static_cast<QWidget*>(edge_), static_cast<QWidget*>(words_)}) w->raise();
    view_->setRoom(head, (folded ? 4 : high + 6) + words);
}

void ScenePane::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    arrange();
}

QSize ScenePane::minimumSizeHint() const {
    // as wide as the views alone
    return view_ ? QSize(views_->minimumSizeHint().width() + fold_->minimumSizeHint().width() + 60, 200)
                 : QWidget::minimumSizeHint();
}

void ScenePane::say(const QString& text) {
    words_->setText(text);
    words_->setVisible(!text.isEmpty());
    arrange();
}

void ScenePane::cutOpenAt(double station_mm) {
    if (!section_) return;
    section_->setValue(static_cast<int>(std::lround(station_mm)));
    section_on_->setChecked(true);
}

void ScenePane::refreshRange() {
    if (!view_) return;
    if (const auto box = view_->box()) {
        const QSignalBlocker quiet(section_);
        section_->setRange(static_cast<int>(std::floor(box->first[0])), static_cast<int>(std::ceil(box->second[0])));
    }
}

} // namespace gorvet::desk
