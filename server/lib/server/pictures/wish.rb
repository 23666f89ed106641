# frozen_string_literal: true

module Server
  module Pictures
    # A picture of a cut that somebody wants to see.
    #
    # frame: record frame; trial: recipes by their id, instead of what is stored; source:
    # without any step; washes: with those over the shot; test: a test picture in place of
    # the shot's, or nil; still: a KeptPicture in place of all that, or nil; screen: what it is drawn on;
    # passing: seen for a moment, while it plays or a hand moves, so that working copies do; onward: the frames after it are wanted next; raster:
    # width and height of the whole picture, nil: that of the desk; upto: id of
    # the last step whose work is shown, nil: all; adds: id of a step of which only the light that it adds is shown, or what
    # it takes away, times gain.
    Wish = Struct.new(:cut, :frame, :screen, :trial, :source, :washes, :test, :still, :passing, :onward, :raster, :upto, :adds, :gain, keyword_init: true) do
      # A rendition is drawn as it is at the frame.
      def initialize(washes: true, **rest)
        super
        self.screen = screen.with(cut.renditions.bound(screen.view, frame, trial || {})) if frame && screen&.view&.aim && test.nil? && still.nil?
      end

      # @param shot [Shot]
      # @return [Mordant::Grade::Recipe] as it is at the frame, if there is one
      def recipe_of(shot)
        (@recipes ||= {}.compare_by_identity)[shot] ||= frame ? whole.recipe_of(shot).at(frame - shot.record_in) : composed(shot)
      end

      # @param shot [Shot]
      # @return [Mordant::Grade::Recipe] all of its grade, as it moves, whatever of it the picture shows
      def graded(shot) = frame ? whole.graded(shot) : (@graded ||= {}.compare_by_identity)[shot] ||= shot.grade(trial || {}, washes:)

      # @return [Wish] whose recipes move as they do
      def whole = frame ? @whole ||= with(frame: nil) : self

      # What goes into it, which is looked at more than once.
      #
      # @yieldreturn [Object] made the first time
      def fed = @fed ||= yield

      # @param tap [String] one of TAPS
      # @return [Wish] whose picture is what instruments measure there
      def at(tap)
        case tap
        when "source" then with(source: true)
        when "before" then with(washes: false)
        else self
        end
      end

      def with(**other) = self.class.new(**to_h, **other)

      def project = cut.project

      # @return [Shot] at its frame, the incoming one of a dissolve
      def shot = cut.shot(cut.timeline.layers(frame).last.shot.key)

      # @return [Array<Shot>] at its frame, two in a dissolve
      def shots = cut.timeline.layers(frame).map { |layer| cut.shot(layer.shot.key) }

      private def composed(shot)
        recipe = source ? NOTHING : graded(shot)
        upto ? recipe.upto(upto) : recipe
      end

      # @return [Mordant::Cut::Timecode]
      def timecode = cut.timecode(frame)
    end

    # Where instruments measure: the source, before the look (the washes), the final picture, or
    # the second one that it is compared with.
    Wish::TAPS = %w[source before final second].freeze

    NOTHING = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT)
  end
end
