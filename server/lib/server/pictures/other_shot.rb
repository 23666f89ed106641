# frozen_string_literal: true

module Server
  module Pictures
    # The matte of a step of another shot, as a source for a Mordant::Matte::Linked. Immutable.
    class OtherShot
      # @param place [Mordant::Matte::Place] in the other shot
      # @param shot [Shot] that it is for
      # @param other [Shot]
      # @param frame [Integer] of the shot
      def initialize(place, shot, other, frame: nil)
        @place, @shot, @other, @frame = place, shot, other, frame
        freeze
      end

      def moving? = @frame.nil?

      def at(frame) = OtherShot.new(@place, @shot, @other, frame:)

      def sees_step? = false

      # @return [Array] for JSON
      def stamp = [@place.at(number(0)).stamp, *Depends.frames(clip, 0, 0), clip.code_encoding, @other.source_in, @other.speed, *(@frame ? number(0) : [@shot.source_in, @shot.length, @other.length])]

      # @param sight [Mordant::Matte::Sight]
      # @return [Numo::SFloat] [n]
      # @raise [Mordant::MediaError]
      def weights(sight)
        moment = sight.moment
        number = number(moment.away)
        there = Mordant::Grade::Moment.new(width: moment.width, height: moment.height, window: moment.window) { |away| codes(number + away, moment) }
        plan = @other.cut.project.plan(NOTHING, clip.code_encoding)
        there = there.from(Mordant::Grade::Origin.new(plan, there))
        @place.at(number).weights(Mordant::Matte::Sight.new(there, sight.space) { |other| plan.picture(other).rgb })
      end

      private

      def clip = @other.clip

      def codes(number, raster)
        return unless (0...@other.length).cover?(number)

        MatteFrames.codes(clip, @other.place.source_at(@other.record_in + number), raster)
      end

      # @return [Integer] frame of the other shot
      def number(away)
        start = clip.start && (clip.start_frames + @other.source_in)
        MatteFrames.at(@shot, @frame.to_i + away, length: @other.length, start:)
      end
    end
  end
end
