# frozen_string_literal: true

module Server
  module Errands
    # Measures the HDR pictures of shots, one after the other, from working copies where there are some; what is measured stays, also where somebody stops it.
    #
    # "shots": ids; without them all that are not measured as they are now.
    class Measure
      # @param cut [Cut]
      # @param wish [Hash]
      # @raise [Mordant::ParameterError]
      def initialize(cut, wish)
        @cut, @wish = cut, wish
        refuse("targets", "an HDR target, in PQ or HLG, whose pictures are measured", cut.project.view.to_s) unless cut.project.hdr
        ids = wish["shots"]
        refuse("shots", "ids of shots of the cut", ids) unless ids.nil? || Array.try_convert(ids)&.all? { |id| cut.positions.key?(id) }
      end

      # @return [Integer] pictures to look at
      def count = @count ||= work.sum { |_, survey| survey.count }.clamp(1, nil)

      def single? = true

      # @yieldparam done [Integer]
      # @return [Hash] how many shots were measured
      # @raise [Mordant::Error]
      def call(_errand)
        before = 0
        work.each do |shot, survey|
          digest = Statistic.digest(shot)
          measured = survey.call { |done| yield before + done if (done % TELL_EVERY).zero? }
          Statistic.keep([[shot, measured, digest, nil]])
          yield before += survey.count
        end
        {shots: work.size}
      end
      TELL_EVERY = 12

      def self.forget(_errand) = nil

      private

      def work = @work ||= chosen.map { |shot| [shot, survey(shot)] }

      def chosen
        all = @cut.renditions.shots.reject { |shot| shot.clip.black? || shot.clip.placeholder? || !shot.clip.assigned? }
        return all.select { |shot| @wish["shots"].include?(shot.id) } if @wish["shots"]

        all.reject { |shot| shot.statistic && shot.statistic.digest == Statistic.digest(shot) }
      end

      def survey(shot)
        project = @cut.project
        simple = shot.place.plain? && !shot.clip.paced? && Mordant::Colour.encoding(shot.clip.code_encoding).transfer != Mordant::Colour::Transfer::HalfCode
        source = @cut.source_of(shot)
        source.reader = Pictures::Copies.current.reader(shot.clip, *Pictures::Desk.raster(project)) || source.reader if simple
        Mordant::Rendition::Survey.new(source:, output: project.output(project.hdr.view), place: shot.place, width: project.width, height: project.height, rate: project.rate, simple:)
      end

      def refuse(path, expected, found) = raise(Mordant::ParameterError.new(path:, expected:, found:))
    end
  end
end
